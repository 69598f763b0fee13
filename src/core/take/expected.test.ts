import { hertzOf } from '#core/pitch';
import { reportTune } from '#core/report';
import { bar, note, part, rest, tune } from '../testing/tunes';
import { expectedOf } from './expected';

const report = reportTune(
  tune(
    [
      part('A', 'D4 E4 (F#4 G4) A4 B4 A4:2 | z:2 d5:2 G3:2 e5:2'),
      {
        name: 'B',
        events: [
          bar('Bb1'),
          note('b1', 'B4', 2, { drone: 'lower' }),
          note('b2', 'F#4', 2, { drone: 'upper' }),
          note('b3', 'E4', 2, { marks: ['cut'] }),
          note('b4', 'D4', 1, { hold: 1.5 }),
          rest('b5', 1),
        ],
      },
    ],
    { form: ['A', 'B', 'A'] },
  ),
  { bpm: 100 },
);
const all = expectedOf(report);
const at = (i: number) => all.notes[i]!;
const FIRST_B = 10;

test('notes follow each other without a gap, and last as long as the plan together', () => {
  expect(all.notes.length).toBe(report.unrolled.notes.length);
  for (const [i, { at: from, seconds }] of all.notes.entries())
    if (i > 0) expect(at(i - 1).at + at(i - 1).seconds).toBeCloseTo(from, 9);
    else expect([from, seconds > 0]).toEqual([0, true]);
  const last = at(all.notes.length - 1);
  expect(last.at + last.seconds).toBeCloseTo(report.timing.total, 9);
});

test('before a rest a note sounds for less than until the next, which knows of the rest', () => {
  expect(at(6).seconds - at(6).sounding).toBeGreaterThan(0.1);
  expect(at(7).restBefore).toBeCloseTo(at(6).seconds - at(6).sounding, 1);
  expect(at(5).restBefore).toBe(0);
});

test('a slurred note starts no stroke; beginnings of bars and passes are where one begins again', () => {
  expect([1, 2, 3, 4].map((i) => at(i).startsStroke)).toEqual([true, true, false, true]);
  expect(all.notes.flatMap(({ isPassStart }, i) => (isPassStart ? [i] : []))).toEqual([0, FIRST_B, FIRST_B + 4]);
  expect(all.notes.flatMap(({ isBarStart }, i) => (isBarStart ? [i] : [])).slice(0, 3)).toEqual([0, 7, FIRST_B]);
});

test('a drone is the open string beside, and the note may be heard with it or alone', () => {
  const lower = at(FIRST_B);
  expect(lower.secondHertz).toBeCloseTo(hertzOf(62, 440), 6);
  expect(lower.secondIsOpen).toBe(true);
  expect(lower.voices[0]).toEqual([lower.hertz, lower.secondHertz]);
  expect(lower.voices).toContainEqual([lower.hertz]);
  expect(at(FIRST_B + 1).secondHertz).toBeCloseTo(hertzOf(69, 440), 6);
  expect(at(FIRST_B + 2).secondHertz).toBeNull();
});

test('a cut is heard as another pitch at the beginning, the plain note after it', () => {
  const cut = at(FIRST_B + 2);
  expect(cut.hasGesture).toBe(true);
  expect(cut.begins.length).toBeGreaterThan(0);
  expect(cut.voices[0]).toEqual([cut.hertz]);
  expect(cut.voices.length).toBeGreaterThan(1);
  expect(at(FIRST_B + 1).hasGesture).toBe(false);
});

test('from the highest string to the lowest the two between are passed over, and one of them is named', () => {
  expect(at(8)).toMatchObject({ place: 0 });
  expect(at(7).skippedHertz).toBeNull();
  expect(at(9).skippedHertz).not.toBeNull();
  expect([hertzOf(62, 440), hertzOf(69, 440)].some((open) => Math.abs(open - at(9).skippedHertz!) < 1e-6)).toBe(true);
});

test('a hold is one, and lasts longer', () => {
  expect(all.notes.flatMap(({ isHeld }, i) => (isHeld ? [i] : []))).toEqual([FIRST_B + 3]);
});

test('on a fiddle tuned to 415 Hz every pitch is lower in one ratio, and every note keeps its number', () => {
  const low = expectedOf(report, { a4: 415 });
  for (const [i, one] of low.notes.entries()) {
    expect(one.midi).toBe(at(i).midi);
    expect(one.hertz / at(i).hertz).toBeCloseTo(415 / 440, 9);
    if (one.secondHertz !== null) expect(one.secondHertz / at(i).secondHertz!).toBeCloseTo(415 / 440, 9);
    if (one.skippedHertz !== null) expect(one.skippedHertz / at(i).skippedHertz!).toBeCloseTo(415 / 440, 9);
    expect(one.voices.flat().map((each) => (each * 440) / 415)).toEqual(
      at(i)
        .voices.flat()
        .map((each) => expect.closeTo(each, 6)),
    );
  }
});

test('a span begins at nought, knows of no rest before it, and comes round after its own length', () => {
  const span = { from: 7, to: FIRST_B };
  const twice = expectedOf(report, { span, loops: 2 });
  expect(twice.perLoop).toBe(3);
  expect(twice.notes.map(({ index, loop }) => [index, loop])).toEqual([
    [7, 0],
    [8, 0],
    [9, 0],
    [7, 1],
    [8, 1],
    [9, 1],
  ]);
  expect(twice.notes[0]).toMatchObject({ at: 0, restBefore: 0, skippedHertz: null });
  const length = twice.notes.slice(0, 3).reduce((sum, { seconds }) => sum + seconds, 0);
  expect(twice.notes[3]!.at).toBeCloseTo(length, 9);
});

test('of nothing nothing is expected', () => {
  expect(expectedOf(report, { span: { from: 3, to: 3 } })).toMatchObject({ notes: [], perLoop: 0 });
});
