import { remembered } from './remembered';

it('reads a text once, anew when it has changed, and forgets what was not asked for the longest', () => {
  const read: string[] = [];
  const lengthOf = remembered((text) => {
    read.push(text);
    return { length: text.length };
  }, 2);
  const first = lengthOf('a', 'one');
  expect(lengthOf('a', 'one')).toBe(first);
  expect(lengthOf('a', 'three')).toEqual({ length: 5 });
  lengthOf('b', 'two');
  lengthOf('a', 'three');
  lengthOf('c', 'four');
  expect(read).toEqual(['one', 'three', 'two', 'four']);
  lengthOf('a', 'three');
  lengthOf('b', 'two');
  expect(read).toEqual(['one', 'three', 'two', 'four', 'two']);
});
