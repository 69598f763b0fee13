import { type Key, parsePitch, pitchName } from '#core/pitch';
import { parseTuning, STANDARD_TUNING } from '#core/tuning';
import { note, seeded } from '../testing/tunes';
import { readGraces, writeGraces } from './graces';

const D: Key = { letter: 'D', alter: 0, mode: 'major' };
const main = note('n', 'F#5', 2);
const names = (text: string, tuning = STANDARD_TUNING) => {
  const read = readGraces(text, main, tuning, D);
  return 'pitches' in read ? read.pitches.map(pitchName) : read;
};

test('grace notes are read as letters near the note, in its key, or as calls', () => {
  expect(names('e g')).toEqual(['E5', 'G5']);
  expect(names("fn e' e,")).toEqual(['F5', 'E6', 'E5']);
  expect(names('E:0 A:2+')).toEqual(['E5', 'C##5']);
  expect(names('E:0', parseTuning('A3 E4 A4 C#5')!)).toEqual(['C#5']);
  expect(names('  ')).toEqual([]);
});

test('what is no note is said with its place', () => {
  expect(names('e h')).toEqual({ word: 'h', at: 2, expected: 'a call such as A:1 or a letter such as f#' });
  expect(names('e '.repeat(17))).toMatchObject({ at: 17, expected: 'at most 16 grace notes' });
});

test('what is written reads back as the same, for any pitches', () => {
  const random = seeded(7);
  for (let round = 0; round < 200; round++) {
    const pitches = Array.from({ length: 1 + Math.floor(random() * 4) }, () => {
      const letter = 'CDEFGAB'[Math.floor(random() * 7)]!;
      return parsePitch(
        `${letter}${['', '#', 'b', '##', 'bb'][Math.floor(random() * 5)]!}${4 + Math.floor(random() * 2)}`,
      )!;
    });
    const read = readGraces(writeGraces(pitches, main, D), main, STANDARD_TUNING, D);
    expect(read).toEqual({ pitches });
  }
});
