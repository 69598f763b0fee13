import type { BeatsPerMinute } from '#core/base';

/** A climb from tempo to tempo until it fails twice. */
export interface Ladder {
  readonly bpm: BeatsPerMinute;
  /** The quickest that was clean. */
  readonly cleanAt: BeatsPerMinute | null;
  /** Misses at this tempo. */
  readonly misses: number;
  readonly isDone: boolean;
  readonly tries: readonly { readonly bpm: BeatsPerMinute; readonly clean: boolean }[];
}

/** The first step is so much slower than what is guessed; each further one so much quicker; after two misses before any clean one so much slower. */
const FIRST = 0.7;
const STEP = 1.05;
const BACK = 0.8;
const MISSES = 2;
/** It is never taken beyond these. */
const RANGE = { slowest: 20, quickest: 400 } as const;

const within = (bpm: number) => Math.min(RANGE.quickest, Math.max(RANGE.slowest, bpm));

export function beginLadder(guessedBpm: BeatsPerMinute): Ladder {
  return { bpm: within(FIRST * guessedBpm), cleanAt: null, misses: 0, isDone: false, tries: [] };
}

/**
 * One repetition more: clean, a step up; missed, once more; missed twice, it is done, or begun again slower where none was
 * clean yet. At the ends of the range it is done too.
 */
export function climb(ladder: Ladder, clean: boolean): Ladder {
  if (ladder.isDone) return ladder;
  const { bpm, cleanAt, misses } = ladder;
  const tries = [...ladder.tries, { bpm, clean }];
  if (clean) {
    const next = within(STEP * bpm);
    return { bpm: next, cleanAt: Math.max(bpm, cleanAt ?? 0), misses: 0, isDone: next === bpm, tries };
  }
  if (misses + 1 < MISSES) return { ...ladder, misses: misses + 1, tries };
  if (cleanAt !== null) return { ...ladder, misses: misses + 1, isDone: true, tries };
  const slower = within(BACK * bpm);
  return { bpm: slower, cleanAt: null, misses: 0, isDone: slower === bpm, tries };
}
