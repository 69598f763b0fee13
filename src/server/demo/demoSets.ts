import type { Sets } from '#contract/sets';

const SETS: readonly {
  readonly id: string;
  readonly name: string;
  readonly tunes: readonly [file: string, times: number][];
}[] = [
  {
    id: '6d1f0a52-3b7e-4c1d-9f60-2a8b4e5c7d01',
    name: 'Reels at the boathouse',
    tunes: [
      ['heron.abc', 3],
      ['ebb-sketch.abc', 2],
      ['pewter-sky.abc', 3],
    ],
  },
  {
    id: '6d1f0a52-3b7e-4c1d-9f60-2a8b4e5c7d02',
    name: 'Last waltz and home',
    tunes: [
      ['lanterns.abc', 2],
      ['slow-ferry.abc', 2],
    ],
  },
];

/** Sets for the demo dance. `idOf`: the tune that a demo file becomes. */
export function demoSets(idOf: (file: string) => string): Sets {
  return {
    sets: SETS.map((set) => ({ ...set, tunes: set.tunes.map(([file, times]) => ({ tuneId: idOf(file), times })) })),
  };
}
