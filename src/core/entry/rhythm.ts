import { type Fraction, fraction, multiply } from '#core/base';
import type { Link, TupletMark } from '#core/tune';

/**
 * Gestures of the bow into which notes fall: how many notes share the stroke, and how many units each lasts. `held` is
 * one note as long as a pair.
 */
export const STROKE_GESTURES = {
  one: { notes: 1, units: 1 },
  pair: { notes: 2, units: 1 },
  three: { notes: 3, units: 1 },
  held: { notes: 1, units: 2 },
} as const;
export type StrokeGesture = keyof typeof STROKE_GESTURES;

/** The rhythm at the caret: what the next note will be. */
export interface EntryRhythm {
  /** Length of a unit in whole notes. */
  readonly unit: Fraction;
  readonly dotted: boolean;
  readonly gesture: StrokeGesture;
  /** Notes already in the stroke that is being filled; 0 begins one. */
  readonly filled: number;
  /** Tuplet being filled, with the notes it already has. */
  readonly tuplet: { readonly notes: number; readonly inTimeOf: number; readonly filled: number } | null;
}

export const SHORTEST_UNIT = fraction(1, 64);
export const LONGEST_UNIT = fraction(2);

export function startRhythm(unit: Fraction): EntryRhythm {
  return { unit, dotted: false, gesture: 'one', filled: 0, tuplet: null };
}

/** Chooses a gesture: a stroke half filled is left as it is, and a new one begins. */
export function chooseGesture(rhythm: EntryRhythm, gesture: StrokeGesture): EntryRhythm {
  return { ...rhythm, gesture, filled: 0 };
}

/** Twice or half the unit; stays where the longest or shortest is reached. */
export function scaleUnit(rhythm: EntryRhythm, by: 'longer' | 'shorter'): EntryRhythm {
  const unit = multiply(rhythm.unit, by === 'longer' ? fraction(2) : fraction(1, 2));
  const value = unit.n / unit.d;
  const isInRange =
    value <= LONGEST_UNIT.n / LONGEST_UNIT.d + 1e-9 && value >= SHORTEST_UNIT.n / SHORTEST_UNIT.d - 1e-9;
  return isInRange ? { ...rhythm, unit } : rhythm;
}

/** Notes of a tuplet and the time they take: three in the time of two, five and seven in that of four, two of three. */
export const TUPLETS: readonly { readonly notes: number; readonly inTimeOf: number }[] = [
  { notes: 3, inTimeOf: 2 },
  { notes: 2, inTimeOf: 3 },
  { notes: 4, inTimeOf: 3 },
  { notes: 5, inTimeOf: 4 },
];

/** What the next note or rest gets, and the rhythm after it. */
export interface RhythmStep {
  readonly duration: Fraction;
  readonly tuplet?: TupletMark;
  /** `change` begins a stroke; `slur` stays in it (a hook where one pitch is struck again). */
  readonly link: Extract<Link, 'change' | 'slur'>;
  readonly next: EntryRhythm;
}

/** The rhythm's next note. A rest takes its length and ends the stroke. */
export function rhythmStep(rhythm: EntryRhythm, kind: 'note' | 'rest' = 'note'): RhythmStep {
  const { notes, units } = STROKE_GESTURES[rhythm.gesture];
  const { tuplet } = rhythm;
  const plain = multiply(rhythm.unit, fraction(units * (rhythm.dotted ? 3 : 1), rhythm.dotted ? 2 : 1));
  const duration = tuplet ? multiply(plain, fraction(tuplet.inTimeOf, tuplet.notes)) : plain;
  const filled = kind === 'rest' ? 0 : (rhythm.filled + 1) % notes;
  const inTuplet = tuplet ? tuplet.filled + 1 : 0;
  return {
    duration,
    ...(tuplet
      ? {
          tuplet: {
            notes: tuplet.notes,
            inTimeOf: tuplet.inTimeOf,
            ...(tuplet.filled === 0 ? { first: true as const } : {}),
          },
        }
      : {}),
    link: kind === 'note' && rhythm.filled > 0 ? 'slur' : 'change',
    next: {
      ...rhythm,
      // A dot is for one note; the next is plain again.
      dotted: false,
      filled,
      tuplet: tuplet && inTuplet < tuplet.notes ? { ...tuplet, filled: inTuplet } : null,
    },
  };
}
