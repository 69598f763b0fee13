import { REFERENCE_PITCH } from '#core/pitch';
import { AS_PLANNED, type OwnFactors } from '#core/tempo';

/**
 * What can go wrong in a take, each told when its figure passes a threshold. All thresholds are guesses of a teacher's ear,
 * and settings.
 */
export const MISTAKE_KINDS = [
  'sharp',
  'flat',
  'wrong-note',
  'left-out',
  'added-note',
  'started-again',
  'wrong-pass',
  'late-finger',
  'bumped-drone',
  'dropped-second',
  'skipped-string-sounds',
  'rushed-turn',
  'scratch',
  'flick-became-note',
  'uneven-triplet',
  'pulse-stayed',
  'rushing',
  'dragging',
  'late-entry',
  'hold-cut-short',
  'silence-cut-short',
  'staccato-runs-together',
  'narrow-vibrato',
  'cloudy-low-string',
] as const;
export type MistakeKind = (typeof MISTAKE_KINDS)[number];

export type FigureUnit = 'ms' | 'cents' | 'dB' | 'percent' | 'notes';

export interface Threshold {
  readonly value: number;
  readonly unit: FigureUnit;
  /** A figure below it is the mistake, not one above. */
  readonly isLeast?: true;
}

export type Thresholds = Readonly<Record<MistakeKind, Threshold>>;

export const DEFAULT_THRESHOLDS: Thresholds = {
  /** From the pitch meant: tempered, or from the string that sounds along. */
  sharp: { value: 15, unit: 'cents' },
  flat: { value: 15, unit: 'cents' },
  /** Farther from the pitch than this it is another note. */
  'wrong-note': { value: 60, unit: 'cents' },
  'left-out': { value: 1, unit: 'notes' },
  /** Length of what was not in the plan. */
  'added-note': { value: 40, unit: 'ms' },
  /** Notes played again, and notes of the plan passed over or played once more. */
  'started-again': { value: 1, unit: 'notes' },
  'wrong-pass': { value: 1, unit: 'notes' },
  /** From the bow’s turn to the pitch. */
  'late-finger': { value: 40, unit: 'ms' },
  /** Dip of the string that sounds along. */
  'bumped-drone': { value: 6, unit: 'dB' },
  /** Share of the time on two strings in which one of them is missing. */
  'dropped-second': { value: 30, unit: 'percent' },
  'skipped-string-sounds': { value: 25, unit: 'ms' },
  /** How much shorter a gap is than planned. */
  'rushed-turn': { value: 25, unit: 'percent' },
  /** Noise before the pitch stands, beyond what is usual. */
  scratch: { value: 30, unit: 'ms' },
  /** How long the second pitch stands. */
  'flick-became-note': { value: 35, unit: 'ms' },
  /** Longest less shortest of the three, of their mean. */
  'uneven-triplet': { value: 30, unit: 'percent' },
  /** Level at the end against the beginning. */
  'pulse-stayed': { value: 2.5, unit: 'dB' },
  /** How much quicker or slower a stretch is than the take. */
  rushing: { value: 5, unit: 'percent' },
  dragging: { value: 5, unit: 'percent' },
  'late-entry': { value: 60, unit: 'ms' },
  'hold-cut-short': { value: 15, unit: 'percent' },
  'silence-cut-short': { value: 25, unit: 'percent' },
  /** How much shorter the gap after a staccato note is than planned. */
  'staccato-runs-together': { value: 45, unit: 'percent' },
  /** From lowest to highest. */
  'narrow-vibrato': { value: 12, unit: 'cents', isLeast: true },
  /** Low partials against those of the other strings. */
  'cloudy-low-string': { value: 5, unit: 'dB' },
};

/** How a player wants takes listened to: what fiddles are tuned to, thresholds that are not the usual ones, own habits. */
export interface Listening {
  readonly a4: number;
  readonly thresholds: { readonly [K in MistakeKind]?: number | undefined };
  /** How long the player's holds and silences come out. */
  readonly own: OwnFactors;
}

export const PLAIN_LISTENING: Listening = { a4: REFERENCE_PITCH.usual, thresholds: {}, own: AS_PLANNED };

/** The thresholds with the player's own in place of the usual. */
export function thresholdsWith(own: Listening['thresholds']): Thresholds {
  return Object.fromEntries(
    MISTAKE_KINDS.map((kind) => [
      kind,
      { ...DEFAULT_THRESHOLDS[kind], value: own[kind] ?? DEFAULT_THRESHOLDS[kind].value },
    ]),
  ) as unknown as Thresholds;
}
