/** @jest-environment node */
import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { Pictures } from './notation/Pictures';

const score = scoreOfFamily('air-drills', 'flute');
const drawn = (height?: number) =>
  renderToStaticMarkup(createElement(Pictures, { score, beat: 0, ...(height && { height }) }));
const told = (markup: string) => markup.replace(/<[^>]+>/g, ' ');

describe('pictures of the breath', () => {
  it('say their steps under them, each once', () => {
    const words = told(drawn());
    for (const text of new Set(score.pictures.map((picture) => picture.text)))
      expect(words.split(text)).toHaveLength(2);
  });

  it('leave the steps to the stand where there is no room, and still say them to who cannot see', () => {
    const low = drawn(200);
    expect(told(low).trim()).toBe('');
    expect(low).toContain(score.pictures[0]!.text);
  });
});
