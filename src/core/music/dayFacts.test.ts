import { findInstrument, instruments, modeOf, registerOf, seamsOf } from '@/core/instruments';
import { scoreOfFamily as made } from './scores.testing';
import { noteNumber as n } from '@/core/tuning';
import { families, type Score } from '.';

describe('air, and the day', () => {
  it('air drills have pictures and no notes, and claim no figure', () => {
    for (const drill of ['slow-fast', 'much-little', 'bursts', 'paper', 'palm']) {
      const air = made('air-drills', 'oboe', { drill });
      expect(air.notes).toEqual([]);
      expect(air.pictures.some((picture) => picture.shape === 'in')).toBe(true);
      expect(air.counts).toMatchObject({ measures: [], events: [] });
    }
  });

  it('no tune’s line is broken: in every key, on every instrument, its intervals are those of a tune', () => {
    const intervals = (score: Score) =>
      score.notes
        .slice(1)
        .map(({ written }, i) => written - score.notes[i]!.written)
        .join(' ');
    const [melody, keys] = ['melody', 'twelve-keys'].map((id) => families.find((each) => each.id === id)!);
    const known = new Set(
      ['weir', 'lanterns', 'ferry'].map((tune) => intervals(made('melody', 'clarinet-bb', { tune }))),
    );
    for (const instrument of instruments) {
      for (const tune of ['weir', 'lanterns', 'ferry'])
        for (let key = -5; key <= 6; key++) {
          const score = melody!.make(instrument, { tune, key: String(key) });
          if (score.ok) expect(known).toContain(intervals(score.value));
        }
      const score = keys!.make(instrument);
      if (!score.ok) continue;
      const rows = score.value.notes.reduce<number[][]>((all, { written, label }) => {
        if (label !== null) all.push([]);
        all.at(-1)!.push(written);
        return all;
      }, []);
      const shapes = rows.map((each) => each.map((written) => written - each[0]!).join(' '));
      expect(new Set(shapes).size).toBe(1);
    }
  });

  it('the day ends with a soft first entry', () => {
    expect(made('on-the-day', 'oboe').notes.at(-1)).toMatchObject({
      dynamic: 'p',
      attack: 'breath',
      label: 'first entry',
    });
  });

  it('modes and registers of all notes are the instrument’s', () => {
    for (const family of families) {
      const instrument = findInstrument(family.unfit(findInstrument('flute')!) ? 'bassoon' : 'flute')!;
      for (const note of made(family.id, instrument.id).notes) {
        if (note.fingered === null) expect(note.mode).toBe(modeOf(instrument, note.written));
        expect(registerOf(instrument, note.written).low).toBeLessThanOrEqual(note.written);
      }
    }
    expect(seamsOf(findInstrument('ney-d')!)[0]).toEqual({ below: n('C#5'), above: n('D5') });
  });
});
