import { writtenNotes } from '#core/tune';
import { part, tune } from '../testing/tunes';
import { scaleBowLengths, strokeHeads } from './bowLength';

const played = tune([part('A', '(D4 E4 F#4) G4 | (A4 B4) c5:2')]);
const wishes = (x: typeof played) => writtenNotes(x).map(({ bowLength }) => bowLength ?? 1);

test('a note under a slur belongs to the stroke that begins with the slur', () => {
  expect(strokeHeads(played, new Set(['A3'])).map(({ id }) => id)).toEqual(['A1']);
  expect(strokeHeads(played, new Set(['A2', 'A4', 'A6'])).map(({ id }) => id)).toEqual(['A1', 'A4', 'A5']);
});

test('a stroke is made longer once, however many of its notes are chosen', () => {
  const longer = scaleBowLengths(played, new Set(['A1', 'A2', 'A3']), 1.1, 0.4, 2.5);
  expect(wishes(longer)).toEqual([1.1, 1, 1, 1, 1, 1, 1]);
});

test('no wish goes beyond what the hair can be asked for, and back at its own length there is none', () => {
  let wished = played;
  for (let i = 0; i < 30; i++) wished = scaleBowLengths(wished, new Set(['A4']), 1.1, 0.4, 2.5);
  expect(wishes(wished)[3]).toBe(2.5);
  for (let i = 0; i < 30; i++) wished = scaleBowLengths(wished, new Set(['A4']), 1 / 1.1, 0.4, 2.5);
  expect(wishes(wished)[3]).toBe(0.4);
  const there = scaleBowLengths(played, new Set(['A4']), 1.25, 0.4, 2.5);
  expect(scaleBowLengths(there, new Set(['A4']), 0.8, 0.4, 2.5)).toEqual(played);
});
