import { reportTune } from '#core/report';
import { readAbc } from '#formats/abc';
import { selectionWords } from './selection';
import { barWords, countWords, noteSpotWords } from './spot';

const REEL = { num: 4, den: 4 };
const JIG = { num: 6, den: 8 };

test.each([
  [1, 'beat 1'],
  [4.5, 'the “and” of 4'],
  [2.25, 'the “e” of 2'],
  [2.75, 'the “a” of 2'],
  [3 + 1 / 3, 'the 2nd triplet note of 3'],
  [3 + 2 / 3, 'the 3rd triplet note of 3'],
  [2 + 1 / 8, 'just after beat 2'],
  [2 + 5 / 8, 'just after the “and” of 2'],
  [3 - 1e-12, 'beat 3'],
])('in four, %f is %s', (beat, words) => {
  expect(countWords({ beat, meter: REEL })).toBe(words);
});

test.each([
  [1, 'beat 1'],
  [4, 'beat 2'],
  [3, 'the 3rd eighth of beat 1'],
  [5, 'the 2nd eighth of beat 2'],
  [5.5, 'the 4th sixteenth of beat 2'],
  [1 + 1 / 3, 'just after beat 1'],
])('in a jig, eighth %f is %s', (beat, words) => {
  expect(countWords({ beat, meter: JIG })).toBe(words);
});

test('no place that a note can have is told with a decimal, and no two places a sixteenth apart alike', () => {
  for (const meter of [REEL, JIG, { num: 3, den: 4 }, { num: 9, den: 8 }, { num: 2, den: 2 }, { num: 3, den: 8 }]) {
    const sixteenths = (16 * meter.num) / meter.den;
    const told = Array.from({ length: sixteenths }, (_, i) => countWords({ beat: 1 + (i * meter.den) / 16, meter }));
    expect(told.join()).not.toMatch(/\d\.\d/);
    // Of an eighth in cut time two sixteenths share a name: no count has names for them.
    if (meter.den > 2) expect(new Set(told).size).toBe(sixteenths);
  }
});

test('a bar under an ending says which, a pickup is called so', () => {
  expect(barWords({ bar: 8, ending: 2 })).toBe('bar 8, 2nd ending');
  expect(barWords({ bar: 0, ending: null })).toBe('the pickup');
  expect(noteSpotWords({ part: 'A', bar: 2, ending: null, beat: 4.5, meter: REEL })).toBe('bar 2 of A, the “and” of 4');
});

test('bars of two endings have one number and are told apart', () => {
  const { tune } = readAbc('X:1\nT:E\nM:4/4\nL:1/4\nK:D\n|:dfaf|1 agfe:|2 d4:|\n').tunes[0]!;
  const report = reportTune(tune);
  const { notes } = report.unrolled;
  const last = notes[notes.length - 1]!;
  expect(selectionWords(report, [last.note.id])).toBe('bar 2 of A, 2nd ending, beat 1');
  expect(selectionWords(report, [notes[4]!.note.id, notes[7]!.note.id])).toBe('bar 2 of A, 1st ending');
});
