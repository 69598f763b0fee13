import { reportTune } from '#core/report';
import { heardTake } from '../testing/heardTake';
import { sceneOf } from '../testing/takeScene';
import { part, tune } from '../testing/tunes';
import { decibels } from './measure';
import { referenceOf, type TakeReference } from './reference';
import { RATE } from './resample';
import { toneFindings } from './toneFindings';
import { lowTonesOf, tonesOf } from './tones';

// Looked up once: it is called for millions of times.
const { sin } = Math;

/** The same notes of the lowest string again and again, and some of the string above. */
const report = reportTune(
  tune([part('A', 'A3:2 B3:2 D4:2 A3:2 | B3:2 A3:2 D4:2 B3:2 | A3:2 A3:2 B3:2 D4:2 | D4:2 E4:2 F#4:2 G4:2')]),
  {
    bpm: 100,
  },
);
const { expected, heard } = heardTake(report);
const TIMES = [0, 3, 5, 8, 9] as const;

/** Partials 1/k, the three lowest as loud as is said for each note. */
function samplesOf(lowOf: (i: number) => number): Float32Array {
  const samples = new Float32Array((expected.notes.at(-1)!.at + 3) * RATE);
  for (const [i, { at, seconds, hertz }] of expected.notes.entries()) {
    const low = lowOf(i);
    const from = Math.round((at + 1) * RATE);
    for (let n = from; n < from + Math.round(seconds * RATE); n++)
      for (let k = 1; k <= 8; k++)
        samples[n]! += (0.1 * (k <= 3 ? low : 1) * sin((2 * Math.PI * k * hertz * n) / RATE)) / k;
  }
  return samples;
}
const told = (lowOf: (i: number) => number, reference: TakeReference | null = null) =>
  toneFindings(sceneOf({ expected, heard }, { tones: tonesOf(samplesOf(lowOf), heard.notes), reference }));

test('the notes are on the lowest string where it is said', () => {
  expect(TIMES.map((i) => expected.notes[i]!.place)).toEqual(TIMES.map(() => 0));
  expect(expected.notes[2]!.place).toBe(1);
});

test('a low note with half its low partials is cloudy by 6 dB against the same note elsewhere', () => {
  const found = told((i) => (i === 5 ? 0.5 : 1));
  expect(found.map(({ code, notes }) => [code, notes])).toEqual([['cloudy-low-string', [5]]]);
  expect(found[0]!.figure).toBeCloseTo(decibels(2), 1);
});

test('a player or a fiddle that sounds like that all the time has another tone, and no mistake', () => {
  expect(told(() => 0.5)).toEqual([]);
});

test('on the strings above it is not told, nor is a little less', () => {
  expect(told((i) => (i === 2 ? 0.4 : 1))).toEqual([]);
  expect(told((i) => (i === 5 ? 0.75 : 1))).toEqual([]);
});

const accepted = (more = 1) =>
  referenceOf([
    {
      biteMs: null,
      lowTones: lowTonesOf(
        tonesOf(
          samplesOf(() => 1).map((x) => more * x),
          heard.notes,
        ),
      ),
    },
  ]);

test('against takes that the player accepted a low string is cloudy though it is so throughout', () => {
  const found = told((i) => (expected.notes[i]!.place === 0 ? 0.4 : 1), accepted());
  expect(found.map(({ notes }) => notes[0])).toEqual(
    expected.notes.flatMap(({ place }, i) => (place === 0 ? [i] : [])),
  );
  expect(found[0]!.figure).toBeCloseTo(decibels(2.5), 0);
  expect(told(() => 1, accepted())).toEqual([]);
});

test('another microphone, which hears all strings otherwise, and another loudness are no other tone', () => {
  expect(told(() => 0.4, accepted())).toEqual([]);
  expect(told(() => 1, accepted(0.2))).toEqual([]);
});

test('of a place that no accepted take has, only the take itself tells', () => {
  const some = accepted()!;
  const others = { ...some, lowTones: some.lowTones.filter(({ semitones }) => semitones !== 2) };
  const found = told((i) => (expected.notes[i]!.place === 0 ? 0.4 : 1), others);
  expect([...new Set(found.map(({ notes }) => expected.notes[notes[0]!]!.semitones))]).toEqual([4]);
});

test('several accepted takes tell by their middle, none tells nothing', () => {
  const take = (low: number, biteMs: number | null) => ({
    biteMs,
    lowTones: [{ semitones: 2, decibels: low, count: 3 }],
  });
  expect(referenceOf([take(4, 30), take(9, null), take(5, 40), take(6, 90)])).toEqual({
    biteMs: 40,
    lowTones: [{ semitones: 2, decibels: expect.closeTo(6, 9), count: 12 }],
  });
  expect(referenceOf([])).toBeNull();
  expect(referenceOf([{ biteMs: null, lowTones: [] }])).toBeNull();
});
