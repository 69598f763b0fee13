import { normalOf, seeded } from '#core/base';
import { type TempoNote, tempoStretches } from './tempoStretches';

/** Notes a quarter of a second apart at a tempo of their own: how much slower each is than the plan. */
function played(
  slower: readonly number[],
  { run = () => 0, uneven = 0 }: { readonly run?: (i: number) => number; readonly uneven?: number } = {},
): TempoNote[] {
  const normal = normalOf(seeded(1));
  let onset = 0;
  return slower.map((factor, i) => {
    const note = { at: i / 4, onset: onset + uneven * normal(), run: run(i) };
    onset += factor / 4;
    return note;
  });
}
const beyond = (percent: number) => (figure: number, uncertainty: number) =>
  Math.abs(figure) - uncertainty / 2 >= percent;
const steady = Array.from({ length: 80 }, () => 1.2);
const STRETCH = { first: 30, end: 45 };
const slowed = steady.map((value, i) => (i >= STRETCH.first && i < STRETCH.end ? 1.1 * value : value));

test('a stretch a tenth slower than the rest is found with its place and its size', () => {
  const [stretch, ...others] = tempoStretches(played(slowed, { uneven: 0.005 }), beyond(5));
  expect(others).toEqual([]);
  expect(Math.abs(stretch!.first - STRETCH.first)).toBeLessThanOrEqual(2);
  expect(Math.abs(stretch!.percent - 10)).toBeLessThan(1.5);
  expect(stretch!.uncertainty).toBeLessThan(2);
});

test('at both ends of a take, quicker and slower, each is told once', () => {
  const both = steady.map((value, i) => (i < 14 ? value * 0.9 : i >= 66 ? value * 1.1 : value));
  const found = tempoStretches(played(both, { uneven: 0.003 }), beyond(5));
  expect(found.map(({ percent }) => Math.sign(percent))).toEqual([-1, 1]);
  expect(found[0]!.end).toBeLessThanOrEqual(18);
  expect(found[1]!.first).toBeGreaterThanOrEqual(62);
});

test('a steady take, one that drifts evenly and a single late note are no stretch', () => {
  expect(tempoStretches(played(steady, { uneven: 0.01 }), beyond(5))).toEqual([]);
  const drifting = steady.map((value, i) => value * (1 + (0.1 * i) / 80));
  expect(tempoStretches(played(drifting), beyond(5))).toEqual([]);
  const late = played(steady).map((note, i) => (i === 40 ? { ...note, onset: note.onset + 0.15 } : note));
  expect(tempoStretches(late, beyond(5))).toEqual([]);
});

test('a pause between two runs is no tempo', () => {
  const run = (i: number) => (i < 40 ? 0 : 1);
  const paused = played(steady, { run }).map((note) => ({ ...note, onset: note.onset + 3 * note.run }));
  expect(tempoStretches(paused, beyond(5))).toEqual([]);
});

test('too few notes tell nothing', () => {
  expect(tempoStretches(played(steady.slice(0, 12)), beyond(0.1))).toEqual([]);
  expect(tempoStretches([], beyond(0.1))).toEqual([]);
});
