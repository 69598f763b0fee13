import { type Ability, cleanTempo, type Margins } from '#core/ability';
import type { BeatsPerMinute } from '#core/base';

/** Chances at which a ladder begins and up to which it steps. */
const BEGIN_CHANCE = 0.9;
const STEP_CHANCE = 0.8;
/** Where nothing is known it begins at this share of the tempo wanted, and no higher than that share of the ceiling. Guesses. */
const BEGIN_SHARE = 0.6;
const BEGIN_CEILING_SHARE = 0.8;
/** The least step, against the usual one: after clean repetitions it goes on, if slowly, whatever was reckoned. A guess. */
const LEAST_STEP = 1 / 4;
/** Misses in a row after which it steps back. */
export const MISSES_BACK = 2;
const SLOWEST: BeatsPerMinute = 20;
/** An air is begun so much faster than it is wanted. A guess. */
export const AIR_START = 1.25;

export interface LadderWish {
  /** The tempo wanted: where it ends. */
  readonly wishBpm: BeatsPerMinute;
  readonly startBpm: BeatsPerMinute;
  /** Percent, 3 to 6. */
  readonly stepPercent: number;
  /** Clean repetitions in a row before it steps on. */
  readonly cleanInARow: number;
  readonly capMinutes: number;
  /** Room at the tempo wanted and what the player can do; null: not known. */
  readonly known: { readonly margins: Margins; readonly ability: Ability } | null;
}

export const LADDER_GUESSES = { stepPercent: 4, cleanInARow: 3, capMinutes: 4 } as const;

export interface TempoLadder {
  readonly wish: LadderWish;
  readonly bpm: BeatsPerMinute;
  readonly cleans: number;
  readonly misses: number;
  readonly minutes: number;
  /** Why it does not step on: something hurts. */
  readonly isHeld: boolean;
  readonly ended: 'wish' | 'cap' | 'stopped' | null;
  /** Tempos at which it has been, the last one now. */
  readonly steps: readonly BeatsPerMinute[];
}

/**
 * Where a ladder begins: at the tempo that comes out clean nine times in ten; where nothing is known at 0.6 of the tempo
 * wanted, and at most at 0.8 of the ceiling. Never above the tempo wanted.
 */
export function ladderStart(
  wishBpm: BeatsPerMinute,
  ceilingBpm: BeatsPerMinute | null,
  known: LadderWish['known'],
): BeatsPerMinute {
  const start = known
    ? (cleanTempo(known.margins, wishBpm, known.ability, BEGIN_CHANCE) ?? SLOWEST)
    : Math.min(BEGIN_SHARE * wishBpm, BEGIN_CEILING_SHARE * (ceilingBpm ?? Infinity));
  return Math.min(wishBpm, Math.max(Math.min(SLOWEST, wishBpm), start));
}

/**
 * Where the ladder of a stretch begins. That the hands have time for it says nothing of notes that were never learnt: a
 * stretch that never came out clean begins as where nothing is known, another at most one step above its best.
 * @param cleanBpm the quickest that came out clean; null: none did
 */
export function stretchStart(
  wishBpm: BeatsPerMinute,
  ceilingBpm: BeatsPerMinute | null,
  known: LadderWish['known'],
  cleanBpm: BeatsPerMinute | null,
): BeatsPerMinute {
  if (cleanBpm === null) return ladderStart(wishBpm, ceilingBpm, null);
  return Math.min(ladderStart(wishBpm, ceilingBpm, known), cleanBpm * (1 + LADDER_GUESSES.stepPercent / 100));
}

export function beginTempoLadder(wish: LadderWish): TempoLadder {
  return {
    wish,
    bpm: wish.startBpm,
    cleans: 0,
    misses: 0,
    minutes: 0,
    isHeld: false,
    ended: null,
    steps: [wish.startBpm],
  };
}

/** The next tempo on the way to the one wanted: a step, or where it comes out clean four times in five, whichever is nearer. */
export function nextRung({ wish, bpm }: Pick<TempoLadder, 'wish' | 'bpm'>): BeatsPerMinute {
  const step = 1 + wish.stepPercent / 100;
  if (bpm > wish.wishBpm) return Math.max(wish.wishBpm, bpm / step);
  const { known } = wish;
  const likely = known ? (cleanTempo(known.margins, wish.wishBpm, known.ability, STEP_CHANCE) ?? bpm) : Infinity;
  const least = bpm * (1 + (LEAST_STEP * wish.stepPercent) / 100);
  return Math.min(wish.wishBpm, Math.max(least, Math.min(bpm * step, likely)));
}

/**
 * A repetition: after so many clean ones in a row a step on, after two misses in a row a step back. It ends when the tempo
 * wanted was clean as often, and when its minutes are over. Held, it never steps on.
 * @param minutes that the repetition took
 */
export function repeated(ladder: TempoLadder, isClean: boolean, minutes: number): TempoLadder {
  if (ladder.ended) return ladder;
  const { wish, bpm } = ladder;
  const cleans = isClean ? ladder.cleans + 1 : 0;
  const misses = isClean ? 0 : ladder.misses + 1;
  const at = { ...ladder, cleans, misses, minutes: ladder.minutes + minutes };
  const moved = (to: BeatsPerMinute): TempoLadder =>
    to === bpm
      ? { ...at, cleans: 0, misses: 0 }
      : { ...at, bpm: to, cleans: 0, misses: 0, steps: [...ladder.steps, to] };
  const isDescending = wish.startBpm > wish.wishBpm;
  const step = 1 + wish.stepPercent / 100;
  let next: TempoLadder = at;
  if (cleans >= wish.cleanInARow && !ladder.isHeld) {
    if (bpm === wish.wishBpm) return { ...at, ended: 'wish' };
    next = moved(nextRung(ladder));
  } else if (misses >= MISSES_BACK)
    next = moved(isDescending ? Math.min(wish.startBpm, bpm * step) : Math.max(Math.min(SLOWEST, bpm), bpm / step));
  return next.minutes >= wish.capMinutes ? { ...next, ended: 'cap' } : next;
}

/** Something hurts, or does no more: nothing urges on meanwhile. */
export function held(ladder: TempoLadder, isHeld: boolean): TempoLadder {
  return { ...ladder, isHeld, cleans: 0 };
}

/** All tempos of a ladder where every repetition is clean: what lies ahead. */
export function ladderSteps(wish: LadderWish): BeatsPerMinute[] {
  const steps = [wish.startBpm];
  for (let bpm = wish.startBpm; bpm !== wish.wishBpm && steps.length < MAX_STEPS;) {
    bpm = nextRung({ wish, bpm });
    steps.push(bpm);
  }
  return steps;
}
/** More than a ladder of the least steps from the slowest tempo to the fastest has. */
const MAX_STEPS = 1000;
