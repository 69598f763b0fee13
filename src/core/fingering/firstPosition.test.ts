import { parsePitch } from '#core/pitch';
import { parseTuning, type Tuning } from '#core/tuning';
import { note } from '../testing/tunes';
import { fingerNote } from './firstPosition';

const STANDARD = parseTuning('G3 D4 A4 E5')!;

function call(pitch: string, tuning: Tuning = STANDARD, more = {}, rule: 'open' | 'fourth' = 'open') {
  const { place, finger, reachable } = fingerNote(note('n', pitch, 1, more), tuning, rule);
  return reachable ? `${place}:${finger}` : `out at ${place}`;
}

test.each([
  ['G3', 'G:0'],
  ['A3', 'G:1'],
  ['Bb3', 'G:2'],
  ['B3', 'G:2'],
  ['C#4', 'G:3'],
  ['D4', 'D:0'],
  ['Eb4', 'D:1'],
  ['F4', 'D:2'],
  ['F#4', 'D:2'],
  ['G#4', 'D:3'],
  ['Ab4', 'D:4'],
  ['A4', 'A:0'],
  ['A#4', 'A:1'],
  ['Bb4', 'A:1'],
  ['C5', 'A:2'],
  ['D#5', 'A:3'],
  ['E5', 'E:0'],
  ['E#5', 'E:1'],
  ['B5', 'E:4'],
  ['C6', 'E:4'],
])('%s lies at %s: letters decide the finger', (pitch, expected) => {
  expect(call(pitch)).toBe(expected);
});

test('what lies below the lowest string or above the fourth finger is reported', () => {
  expect(call('F#3')).toBe('out at G');
  expect(call('D6')).toBe('out at E');
});

test('eight semitones are an extended fourth, taken only where nothing else reaches', () => {
  expect(fingerNote(note('n', 'C6', 1), STANDARD).extended).toBe(true);
  expect(fingerNote(note('n', 'B5', 1), STANDARD).extended).toBe(false);
  // B flat on D is eight semitones up, and a first finger on A.
  expect(call('Bb4')).toBe('A:1');
});

test('by the fourth-finger rule an open string gives way to the string below, the lowest string has none', () => {
  expect(call('A4', STANDARD, {}, 'fourth')).toBe('D:4');
  expect(call('E5', STANDARD, {}, 'fourth')).toBe('A:4');
  expect(call('G3', STANDARD, {}, 'fourth')).toBe('G:0');
  expect(call('B4', STANDARD, {}, 'fourth')).toBe('A:1');
});

test('on a retuned string its new letter counts', () => {
  const crossed = parseTuning('A3 E4 A4 E5')!;
  expect(call('B3', crossed)).toBe('G:1');
  expect(call('F#4', crossed)).toBe('D:1');
  expect(call('D4', crossed)).toBe('G:3');
  expect(call('G3', crossed)).toBe('out at G');
});

test('pinned fingers and places are kept where they give the note, and told where they do not', () => {
  expect(call('A4', STANDARD, { finger: 4 })).toBe('D:4');
  expect(call('A4', STANDARD, { place: 'D' })).toBe('D:4');
  expect(fingerNote(note('n', 'A4', 1, { finger: 2 }), STANDARD).pinMisfits).toBe(true);
});

test('a double stop lies on neighbour strings, the melody on the upper one', () => {
  const at = (top: string, low: string) => {
    const { place, finger, stops } = fingerNote(note('n', top, 1, { stops: [parsePitch(low)!] }), STANDARD);
    return [`${place}:${finger}`, ...stops.map((stop) => (stop ? `${stop.place}:${stop.finger}` : null))];
  };
  expect(at('A4', 'D4')).toEqual(['A:0', 'D:0']);
  expect(at('D5', 'F#4')).toEqual(['A:3', 'D:2']);
  expect(at('E5', 'E5')).toEqual(['E:0', 'A:4']);
  // Both on one string and out of the neighbour's reach.
  expect(at('G4', 'E4')).toEqual(['D:3', null]);
});
