import { reportTune } from '#core/report';
import { heardTake } from '../testing/heardTake';
import { sceneOf } from '../testing/takeScene';
import { bar, note, tune } from '../testing/tunes';
import { RATE } from './resample';
import { secondFindings } from './secondFindings';

// Looked up once: it is called for millions of times.
const { sin } = Math;

/** Minims over an open string, and one alone. */
const report = reportTune(
  tune([
    {
      name: 'A',
      events: [
        bar('Ab1'),
        note('a1', 'B4', 4, { drone: 'lower' }),
        note('a2', 'B4', 4, { drone: 'lower' }),
        note('a3', 'B4', 4, { drone: 'lower' }),
        note('a4', 'F#4', 4, { drone: 'upper' }),
        note('a5', 'F#4', 4),
      ],
    },
  ]),
  { bpm: 90 },
);
const { expected, heard } = heardTake(report);

/** How loud the second string is, of what it usually is, at a share of a note's time. */
type Second = (i: number, share: number) => number;

/** Both strings with partials 1/k, the second as loud as is said. */
function samplesOf(second: Second): Float32Array {
  const samples = new Float32Array((expected.notes.at(-1)!.at + 3) * RATE);
  const tone = (hertz: number, n: number) =>
    [1, 2, 3, 4, 5].reduce((sum, k) => sum + sin((2 * Math.PI * k * hertz * n) / RATE) / k, 0);
  for (const [i, { at, seconds, hertz, secondHertz }] of expected.notes.entries()) {
    const from = Math.round((at + 1) * RATE);
    const to = Math.round((at + 1 + seconds) * RATE);
    for (let n = from; n < to; n++) {
      const along = secondHertz === null ? 0 : second(i, (n - from) / (to - from)) * tone(secondHertz, n);
      samples[n] = 0.1 * (tone(hertz, n) + 0.6 * along);
    }
  }
  return samples;
}
const told = (second: Second) =>
  secondFindings(sceneOf({ expected, heard }, { samples: samplesOf(second) })).map(({ code, notes, figure }) => ({
    code,
    at: notes[0],
    figure,
  }));

test('both strings all the time: nothing is told', () => {
  expect(told(() => 1)).toEqual([]);
});

test('a second string that swells or is played softer throughout is no mistake', () => {
  expect(told((_, share) => 0.7 + 0.6 * share)).toEqual([]);
  expect(told((i) => (i === 1 ? 0.6 : 1))).toEqual([]);
});

test('a string that goes in the second half of its note is dropped, by its share', () => {
  const [one, ...more] = told((i, share) => (i === 1 && share > 0.5 ? 0 : 1));
  expect(more).toEqual([]);
  expect(one).toMatchObject({ code: 'dropped-second', at: 1 });
  expect(Math.abs(one!.figure - 50)).toBeLessThan(10);
});

test('a string that never sounds is dropped altogether, below and above the melody', () => {
  for (const at of [2, 3]) {
    const [one] = told((i) => (i === at ? 0 : 1));
    expect(one).toMatchObject({ code: 'dropped-second', at });
    expect(one!.figure).toBeGreaterThan(90);
  }
});

test('a finger that touches the open string for a moment is a bump, where it is, by its depth', () => {
  const { seconds } = expected.notes[1]!;
  const dip = 0.09 / seconds;
  const scene = sceneOf(
    { expected, heard },
    { samples: samplesOf((i, share) => (i === 1 && Math.abs(share - 0.5) < dip / 2 ? 0.1 : 1)) },
  );
  const [one, ...more] = secondFindings(scene);
  expect(more).toEqual([]);
  expect(one).toMatchObject({ code: 'bumped-drone', notes: [1], drill: 'no-bump' });
  // 20 dB down, seen through a window that is half as long as the dip.
  expect(one!.figure).toBeGreaterThan(10);
  expect(Math.abs(one!.seconds - (expected.notes[1]!.at + 1 + seconds / 2))).toBeLessThan(0.05);
});

test('a dip of 3 dB is none', () => {
  expect(told((i, share) => (i === 1 && Math.abs(share - 0.5) < 0.05 ? 0.7 : 1))).toEqual([]);
});

test('what was not heard, or was another note, is not judged', () => {
  const notes = heard.notes.map((one, i) => (i === 2 ? { ...one, otherCents: 200 } : one));
  const samples = samplesOf((i) => (i === 2 ? 0 : 1));
  expect(secondFindings(sceneOf({ expected, heard: { ...heard, notes } }, { samples }))).toEqual([]);
});
