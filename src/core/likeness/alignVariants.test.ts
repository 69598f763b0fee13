import type { Tune } from '#core/tune';
import { inventedTune } from '../testing/books';
import { part, tune } from '../testing/tunes';
import { alignVariants } from '.';

const named = (value: Tune, other: Tune) =>
  alignVariants(value, other).bars.map(({ one, other: facing, beats }) => [
    one ? `${one.part}${one.bar}` : null,
    facing ? `${facing.part}${facing.bar}` : null,
    beats.map((agreement) => agreement[0]).join(''),
  ]);

test('a tune agrees with itself on every beat', () => {
  for (let seed = 1; seed <= 10; seed++) {
    const value = inventedTune(seed);
    const { counts, semitones } = alignVariants(value, value);
    expect(semitones).toBe(0);
    expect([counts['on-the-beat'], counts.different, counts.alone]).toEqual([0, 0, 0]);
    expect(counts.same).toBeGreaterThan(0);
  }
});

test('what is the same, the same on the beat, and different is told beat by beat', () => {
  const one = tune([part('A', 'D4 E4 F#4 G4 A4 B4 A4 F#4 | D5:4 C#5:4')]);
  const other = tune([part('A', 'D4 E4 F#4 G4 A4:2 F#4:2 | B4:4 G4:4')]);
  expect(named(one, other)).toEqual([
    ['A1', 'A1', 'so'],
    ['A2', 'A2', 'dd'],
  ]);
});

test('a bar more in one of them stands alone, and the others stay together', () => {
  const one = tune([part('A', 'D4:4 E4:4 | F#4:4 G4:4 | A4:4 B4:4')]);
  const other = tune([part('A', 'D4:4 E4:4 | C#5:4 G5:4 | F#4:4 G4:4 | A4:4 B4:4')]);
  expect(named(one, other)).toEqual([
    ['A1', 'A1', 'ss'],
    [null, 'A2', 'aa'],
    ['A2', 'A3', 'ss'],
    ['A3', 'A4', 'ss'],
  ]);
  expect(named(other, one)[1]).toEqual(['A2', null, 'aa']);
});

test('a setting a fourth higher is heard in the same key', () => {
  const one = tune([part('A', 'G4 A4 B4 C5 D5 E5 D5 B4 | G4:8')], { key: { letter: 'G', alter: 0, mode: 'major' } });
  const other = tune([part('A', 'D4 E4 F#4 G4 A4 B4 A4 F#4 | D4:8')]);
  const { semitones, counts } = alignVariants(one, other);
  expect(semitones).toBe(5);
  expect(counts).toEqual({ same: 4, 'on-the-beat': 0, different: 0, alone: 0 });
});

test('pickups of different length are put against the bar line', () => {
  const one = tune([part('A', 'A4 | D5:8')]);
  const other = tune([part('A', 'F#4 G4 | D5:8')]);
  const [pickup] = alignVariants(one, other).bars;
  expect(pickup!.one!.beats[0]!.map(({ at }) => at)).toEqual([{ n: 3, d: 8 }]);
  expect(pickup!.other!.beats[0]!.map(({ at }) => at)).toEqual([
    { n: 1, d: 4 },
    { n: 3, d: 8 },
  ]);
  expect(pickup!.beats).toEqual(['different']);
});

test('the pairs cost the least of all ways to put bars together', () => {
  const cost = { same: 0, 'on-the-beat': 0.35, different: 1, alone: 1 };
  const shuffled = (seed: number, order: readonly number[]) => {
    const value = inventedTune(seed);
    const [first] = value.parts;
    const bars = order.map((index) => first!.events.slice(...barRange(value, index)));
    const events = bars.flat().map((event, i) => ({ ...event, id: `s${i}` }));
    return { ...value, parts: [{ name: 'A', events }], form: ['A'] } as Tune;
  };
  for (let seed = 1; seed <= 12; seed++) {
    const [one, other] = [shuffled(seed, [0, 1, 2, 3]), shuffled(seed, [0, 2, 4, 3])];
    const aligned = alignVariants(one, other);
    const total = aligned.bars.reduce(
      (sum, { one: a, other: b, beats }) =>
        sum + (a && b ? beats.reduce((all, beat) => all + cost[beat], 0) / beats.length : 0.6),
      0,
    );
    expect(total).toBeCloseTo(least(one, other), 9);
  }

  function least(one: Tune, other: Tune): number {
    const pair = (i: number, j: number) => {
      const { beats } = alignVariants(barAlone(one, i), barAlone(other, j)).bars.find(
        (bar) => bar.one && bar.other,
      ) ?? {
        beats: [],
      };
      return beats.length === 0 ? 1.2 : beats.reduce((all, beat) => all + cost[beat], 0) / beats.length;
    };
    const table = [0, 1, 2, 3].map((i) => [0, 1, 2, 3].map((j) => pair(i, j)));
    const best = (i: number, j: number): number => {
      if (i === 4) return 0.6 * (4 - j);
      if (j === 4) return 0.6 * (4 - i);
      return Math.min(table[i]![j]! + best(i + 1, j + 1), 0.6 + best(i + 1, j), 0.6 + best(i, j + 1));
    };
    return best(0, 0);
  }
});

function barRange(value: Tune, index: number): [number, number] {
  const starts = value.parts[0]!.events.flatMap((event, i) => (event.kind === 'bar' ? [i] : []));
  return [starts[index]!, starts[index + 1]!];
}

function barAlone(value: Tune, index: number): Tune {
  const starts = value.parts[0]!.events.flatMap((event, i) => (event.kind === 'bar' ? [i] : []));
  const events = value.parts[0]!.events.slice(starts[index]!, starts[index + 1] ?? Infinity);
  return { ...value, parts: [{ name: 'A', events }] };
}
