import { seeded } from '#core/base';
import { cases } from '../testing/share';
import { NOWHERE, Paths } from './paths';

/** So many beginnings, each after one of the last few that are alive, or after none. */
function grown(count: number, seed: number) {
  const random = seeded(seed);
  const paths = new Paths();
  let alive: number[] = [];
  for (let i = 0; i < count; i++) {
    const node = paths.add();
    paths.note[node] = i;
    paths.time[node] = i;
    paths.score[node] = random();
    paths.tempo[node] = random();
    paths.leftOut[node] = i % 3;
    paths.isJump[node] = i % 2;
    paths.previous[node] = alive.length > 0 && random() < 0.98 ? alive[Math.floor(random() * alive.length)]! : NOWHERE;
    alive = [...alive, node].slice(-12);
  }
  return { paths, alive };
}

/** The way to a beginning, from the last one back to the first. */
function wayTo(paths: Paths, last: number) {
  const way = [];
  for (let node = last; node !== NOWHERE; node = paths.previous[node]!)
    way.push([paths.note[node], paths.time[node], paths.score[node], paths.tempo[node], paths.leftOut[node]]);
  return way;
}

test.each(Array.from({ length: cases(20) }, (_, seed) => seed))(
  'of tree %i all that can be reached stays, each way as it was, and nothing else',
  (seed) => {
    const { paths, alive } = grown(400, seed);
    const before = alive.map((node) => wayTo(paths, node));
    const reached = new Set<number>();
    for (const last of alive) for (let node = last; node !== NOWHERE; node = paths.previous[node]!) reached.add(node);
    const numbers = paths.keep([...alive, NOWHERE]);
    expect(paths.count).toBe(reached.size);
    expect([...numbers.keys()].filter((node) => numbers[node] !== NOWHERE)).toEqual([...reached].sort((a, b) => a - b));
    expect(alive.map((node) => wayTo(paths, numbers[node]!))).toEqual(before);
    for (let node = 0; node < paths.count; node++) expect(paths.previous[node]).toBeLessThan(node);
  },
);

test('it grows without losing what was written, and asks for clearing only when twice as much has come', () => {
  const { paths, alive } = grown(40_000, 7);
  expect(Array.from(paths.note.subarray(0, 40_000))).toEqual(Array.from({ length: 40_000 }, (_, i) => i));
  expect(paths.isFull).toBe(true);
  paths.keep(alive);
  expect(paths.isFull).toBe(false);
  expect(paths.count).toBeLessThan(20_000);
});

test('where nothing is wanted, nothing stays', () => {
  const { paths } = grown(50, 3);
  paths.keep([]);
  expect(paths.count).toBe(0);
});
