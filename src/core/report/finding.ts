import type { BeatsPerMinute, Fraction } from '#core/base';
import type { Obstacle, Ornament } from '#core/ornaments';
import type { EventKind } from '#core/tempo';
import type { Direction, Place } from '#core/tune';
import type { Spot } from './findingInput';
import type { Mend } from './mend';

export type Severity = 'problem' | 'care' | 'note';

/** A finding as data; words are made from it elsewhere. */
export type Finding = {
  readonly severity: Severity;
  readonly ids: readonly string[];
  readonly spot: Spot;
  readonly mends: readonly Mend[];
} & (
  | {
      readonly code: 'part-flips';
      /** Locked notes that come out the other way because of it. */
      readonly locks: number;
      readonly part: string;
      readonly turns: number;
      readonly changed: number;
      readonly pass: number;
      readonly entry: Direction;
    }
  | { readonly code: 'tune-flips-again'; readonly turns: number }
  | {
      readonly code:
        | 'slur-skips-string'
        | 'crossing-too-fast'
        | 'stroke-too-fast'
        | 'hop-too-fast'
        | 'shift-too-fast'
        | 'retake-too-fast'
        | 'ornament-too-fast';
      readonly event: EventKind;
      readonly from: string;
      readonly to: string;
      readonly inSlur: boolean;
      readonly degrees: number;
      /** Other crossings within 0.6 s before it, for which it needs more. */
      readonly recent: number;
      readonly availableMs: number;
      readonly neededMs: number;
      readonly standsTo: BeatsPerMinute;
      /** Further places of the kind that are not told one by one. */
      readonly others: number;
    }
  | {
      readonly code: 'runs-out-of-hair';
      /** What the longest such stroke takes at least, and what there is. */
      readonly cm: number;
      readonly hairCm: number;
      /** How long it lasts. */
      readonly seconds: number;
      /** Asked to be so long, or as slow as the player can draw. */
      readonly cause: 'asked' | 'slow';
      /** Further such strokes. */
      readonly others: number;
    }
  | {
      readonly code: 'reverse-crossings';
      /** Crossings of the passage. */
      readonly count: number;
      /** How the player likes them. */
      readonly liked: 'lower-down' | 'upper-down';
      /** Further passages that are not told one by one. */
      readonly others: number;
    }
  | {
      readonly code: 'bars-begin-up';
      readonly part: string;
      /** Of so many full bars of its first pass so many begin on an up-bow. */
      readonly up: number;
      readonly bars: number;
      readonly others: number;
    }
  | {
      readonly code: 'bowed-unlike';
      /** Notes of the figure, and how often it stands in the tune. */
      readonly notes: number;
      readonly spots: number;
      /** Places after which everything flips if they are bowed alike, at least. */
      readonly flips: number;
      readonly others: number;
    }
  | {
      readonly code: 'window-left';
      /** Strokes of the phrase whose middle lies outside the working window, their share of its time, and how far the furthest is beyond. */
      readonly share: number;
      readonly strokes: number;
      readonly cm: number;
      readonly end: 'frog' | 'tip';
      readonly others: number;
    }
  | {
      readonly code: 'jerk';
      /** Speeds of the two neighbour strokes, in centimetres a second. */
      readonly from: number;
      readonly to: number;
      readonly others: number;
    }
  | {
      readonly code: 'skip-may-sound';
      readonly from: string;
      readonly to: string;
      readonly others: number;
    }
  | {
      readonly code: 'ornament-misfits';
      readonly ornament: Ornament;
      readonly obstacle: Obstacle;
      readonly others: number;
    }
  | {
      readonly code: 'drone-grates';
      /** The drone and the interval of the note over or under it, in semitones, with its rank and that of the mend's. */
      readonly drone: string;
      readonly interval: string;
      readonly rank: number;
      readonly bestRank: number;
      readonly others: number;
    }
  | {
      readonly code: 'one-plane';
      /** The pair on which the bow may stay, and crossings of the passage that would be none. */
      readonly pair: string;
      readonly crossings: number;
      readonly others: number;
    }
  | { readonly code: 'string-inferred'; readonly notes: number }
  | { readonly code: 'lock-contradicted'; readonly lock: Direction; readonly passes: readonly string[] }
  | { readonly code: 'out-of-reach' | 'stops-out-of-reach' | 'finger-misfits' | 'hand-forbids' }
  | { readonly code: 'extended-fourth'; readonly string: Place }
  | { readonly code: 'bar-short' | 'bar-long'; readonly length: Fraction; readonly expected: Fraction }
  | {
      readonly code: 'join-does-not-add-up';
      readonly length: Fraction;
      readonly expected: Fraction;
      /** `A1` and `A2`; null where the tune begins again. */
      readonly from: string;
      readonly to: string | null;
    }
);

/** All kinds of findings, in the order in which they are told. */
export const FINDING_CODES = [
  'part-flips',
  'tune-flips-again',
  'lock-contradicted',
  'slur-skips-string',
  'crossing-too-fast',
  'stroke-too-fast',
  'hop-too-fast',
  'shift-too-fast',
  'retake-too-fast',
  'ornament-too-fast',
  'runs-out-of-hair',
  'window-left',
  'jerk',
  'bar-short',
  'bar-long',
  'join-does-not-add-up',
  'reverse-crossings',
  'bars-begin-up',
  'bowed-unlike',
  'one-plane',
  'skip-may-sound',
  'out-of-reach',
  'stops-out-of-reach',
  'finger-misfits',
  'hand-forbids',
  'extended-fourth',
  'string-inferred',
  'ornament-misfits',
  'drone-grates',
] as const satisfies readonly Finding['code'][];
