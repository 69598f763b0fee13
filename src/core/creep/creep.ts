import type { Semitones } from '#core/base';

/** Minutes since a string was brought to its pitch. */
export type Minutes = number;
export type Cents = number;

/** What a changed string does when left alone: it drifts back toward where it was. Guesses, refitted from checks. */
export const CREEP_GUESSES = {
  /** Share of the change that it goes back in the end. */
  share: 0.08,
  /** No string goes back further than this. */
  mostCents: 30,
  /** Half of the way is done after this time. */
  halfLifeMinutes: 6,
  /** A new string goes this many times as far. */
  newString: 3,
} as const;

/** From here on a drift is heard against another string. */
export const HEARD_CENTS: Cents = 5;

/** A reading of a string: how far it stands from its target. */
export interface Reading {
  /** Since it was brought to its pitch. */
  readonly minutes: Minutes;
  readonly cents: Cents;
}

/**
 * Half-lives of the parts into which a drift is taken apart: windings and knots settle within a minute or two, the core
 * over a quarter of an hour. Guesses; readings say how much of each there is.
 */
const HALF_LIVES: readonly Minutes[] = [1.5, 4, 10, 24];
/** How the guess of one half-life is shared among the parts, so that half of it is done after six minutes. */
const PRIOR_SHARES: readonly number[] = [0.18, 0.3, 0.3, 0.22];

/** A drift as a sum of parts that each settle by their own half-life: c(t) = offset + Σ aᵢ·(1 − 2^(−t/hᵢ)). */
export interface Creep {
  readonly offset: Cents;
  readonly parts: readonly { readonly cents: Cents; readonly halfLife: Minutes }[];
  /** Readings it rests on; 0: a guess. */
  readonly readings: number;
}

/** How far a string is expected to go back in the end, in cents: against the change, at most 30, three times for a new one. */
export function guessedDrift(change: Semitones, isNew: boolean): Cents {
  const { share, mostCents, newString } = CREEP_GUESSES;
  const size = Math.min(mostCents, 100 * Math.abs(change) * share) * (isNew ? newString : 1);
  // A new string that is not retuned stretches all the same, and falls.
  const ofNew = isNew && change === 0 ? mostCents : size;
  return change < 0 ? ofNew : -ofNew;
}

/** The drift expected before any reading; `scale`: how much further this fiddle's strings go than is guessed. */
export function guessedCreep(change: Semitones, isNew = false, scale = 1): Creep {
  const total = scale * guessedDrift(change, isNew);
  return {
    offset: 0,
    parts: HALF_LIVES.map((halfLife, i) => ({ cents: total * PRIOR_SHARES[i]!, halfLife })),
    readings: 0,
  };
}

/** How far off the string stands, in cents, t minutes after it was brought to its pitch. */
export function creepAt({ offset, parts }: Creep, minutes: Minutes): Cents {
  return parts.reduce((sum, { cents, halfLife }) => sum + cents * (1 - 2 ** (-minutes / halfLife)), offset);
}

/** One earlier retuning of a string with what was read of it afterwards. */
export interface CheckedDrift {
  readonly change: Semitones;
  readonly isNew: boolean;
  readonly readings: readonly Reading[];
}

/** A drift is judged by where it stood after this time; checks that ended sooner say too little. */
const JUDGED_MINUTES: Minutes = 10;
const MIN_WATCHED: Minutes = 2;
const MIN_DRIFT: Cents = 2;
/** No fiddle is believed to drift beyond these. Guesses. */
const SCALES = [0.3, 3] as const;

/**
 * How much further the strings of a fiddle go than is guessed: the middle of the ratios of fitted to guessed drift after
 * ten minutes over its earlier checks; 1 while there are none. Time as for a fit of each.
 */
export function creepScale(checked: readonly CheckedDrift[]): number {
  const ratios = checked
    .filter(
      ({ change, isNew, readings }) =>
        Math.abs(guessedDrift(change, isNew)) >= MIN_DRIFT && readings.some(({ minutes }) => minutes >= MIN_WATCHED),
    )
    .map(({ change, isNew, readings }) => {
      // Ten times the trust in the readings: the guess must not answer for itself.
      const often = Array.from({ length: 10 }, () => readings).flat();
      return (
        creepAt(fitCreep(change, isNew, often), JUDGED_MINUTES) / creepAt(guessedCreep(change, isNew), JUDGED_MINUTES)
      );
    })
    .sort((a, b) => a - b);
  const middle = ratios[Math.floor(ratios.length / 2)];
  return middle === undefined ? 1 : Math.min(SCALES[1], Math.max(SCALES[0], middle));
}

/** A reading is good to about a cent. */
const READING_SD: Cents = 1;
/**
 * The size of each part may be off by this share of the whole guess, and at least by these cents: little, since readings
 * over a minute or two say how far a drift goes and hardly how it will go on. Guesses, tried on simulated fiddles.
 */
const PRIOR_SHARE_SD = 0.07;
const PRIOR_MIN_SD: Cents = 0.6;
const OFFSET_SD: Cents = 1;
const ROUNDS = 12;

/**
 * The drift refitted from readings: least Σ((reading − c(t))/σ)² + Σ((a − guess)/σ_guess)² over the parts, none of which
 * may go the other way than the guess. Readings that stand off by more than three times the usual are slips of the peg:
 * what comes after the last of them counts, from there on as a new offset.
 * A linear least-squares problem of five unknowns, solved by coordinate descent with bounds. Time O(rounds · readings).
 */
export function fitCreep(change: Semitones, isNew: boolean, readings: readonly Reading[], scale = 1): Creep {
  const guess = guessedCreep(change, isNew, scale);
  if (readings.length === 0) return guess;
  const sign = Math.sign(guessedDrift(change, isNew)) || -1;
  const whole = scale * Math.abs(guessedDrift(change, isNew));
  const slip = lastSlip(readings);
  const columns = [
    readings.map(() => 1),
    ...HALF_LIVES.map((halfLife) => readings.map(({ minutes }) => 1 - 2 ** (-minutes / halfLife))),
    ...(slip > 0 ? [readings.map((_, i) => (i >= slip ? 1 : 0))] : []),
  ];
  const prior = [0, ...guess.parts.map(({ cents }) => cents), ...(slip > 0 ? [0] : [])];
  const sd = Math.max(PRIOR_MIN_SD, PRIOR_SHARE_SD * whole);
  const precision = [1 / OFFSET_SD ** 2, ...guess.parts.map(() => 1 / sd ** 2), ...(slip > 0 ? [1e-6] : [])];
  const isFree = (k: number) => k === 0 || k > HALF_LIVES.length;
  const solved = boundedLeastSquares(columns, readings, prior, precision, (k, value) =>
    isFree(k) || value * sign >= 0 ? value : 0,
  );
  const jump = slip > 0 ? solved[solved.length - 1]! : 0;
  return {
    offset: solved[0]! + jump,
    parts: HALF_LIVES.map((halfLife, i) => ({ cents: solved[i + 1]!, halfLife })),
    readings: readings.length,
  };
}

/** Least weighted squares with a bound on each unknown, one unknown at a time until they stand. */
function boundedLeastSquares(
  columns: readonly (readonly number[])[],
  readings: readonly Reading[],
  prior: readonly number[],
  precision: readonly number[],
  bound: (k: number, value: number) => number,
): number[] {
  const weight = 1 / READING_SD ** 2;
  const values = [...prior];
  const left = readings.map(
    ({ cents }, i) => cents - columns.reduce((sum, column, k) => sum + column[i]! * values[k]!, 0),
  );
  const size = columns.map((column) => column.reduce((sum, value) => sum + value * value, 0));
  for (let round = 0; round < ROUNDS * columns.length * 8; round++) {
    const k = round % columns.length;
    const column = columns[k]!;
    const pull = column.reduce((sum, value, i) => sum + value * left[i]!, 0);
    const wanted =
      (weight * (pull + size[k]! * values[k]!) + precision[k]! * prior[k]!) / (weight * size[k]! + precision[k]!);
    const next = bound(k, wanted);
    const change = next - values[k]!;
    if (change !== 0) for (let i = 0; i < left.length; i++) left[i]! -= column[i]! * change;
    values[k] = next;
  }
  return values;
}

/** Readings before and after a slip that are compared, and by how many cents their middles must part. */
const SLIP_WINDOW = 6;
const SLIP_CENTS: Cents = 2.6;

/** Index of the first reading after the last sudden jump; 0 where there is none. */
function lastSlip(readings: readonly Reading[]): number {
  let found = 0;
  let largest = SLIP_CENTS;
  for (let i = SLIP_WINDOW; i + SLIP_WINDOW <= readings.length; i++) {
    const before = readings.slice(i - SLIP_WINDOW, i);
    const after = readings.slice(i, i + SLIP_WINDOW);
    const jump = Math.abs(meanCents(after) - meanCents(before) - slopeOf(before) * SLIP_WINDOW);
    if (jump > largest) [found, largest] = [i, jump];
  }
  return found;
}

const meanCents = (readings: readonly Reading[]) =>
  readings.reduce((sum, { cents }) => sum + cents, 0) / readings.length;

/** Drift per reading within a window, by its halves. */
function slopeOf(readings: readonly Reading[]): number {
  const half = readings.length / 2;
  return ((meanCents(readings.slice(half)) - meanCents(readings.slice(0, half))) / half) * 0.5;
}

/** Farthest that a next check is looked for. */
const MAX_MINUTES: Minutes = 240;

/** When the string will have drifted more than is heard, in minutes since it was tuned; null where it will not. */
export function nextCheck(creep: Creep, after: Minutes = 0, heard: Cents = HEARD_CENTS): Minutes | null {
  if (Math.abs(creepAt(creep, after)) >= heard) return after;
  if (Math.abs(creepAt(creep, MAX_MINUTES)) < heard) return null;
  let [low, high] = [after, MAX_MINUTES];
  // Within a thousandth of a minute: the drift goes one way.
  while (high - low > 1e-3) {
    const middle = (low + high) / 2;
    if (Math.abs(creepAt(creep, middle)) >= heard) high = middle;
    else low = middle;
  }
  return high;
}
