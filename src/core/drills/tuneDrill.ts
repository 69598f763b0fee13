import type { ScaleStop } from '#core/ground';
import type { TuneReport } from '#core/report';
import type { EventKind } from '#core/tempo';
import type { Place, Tune } from '#core/tune';
import type { SmallGround, SmallNote } from './smallTune';

/** Drills that are made from a tune. */
export const DRILL_KINDS = [
  'pattern',
  'jig-accent',
  'turn-in-silence',
  'skipped-string',
  'early-arm',
  'pair-plane',
  'no-bump',
  'doubling-approach',
  'one-finger-across',
  'stretch-pair',
  'elbow',
  'shift',
  'falling-run',
  'hop',
  'finger-before-bow',
  'bowed-triplet',
  'pulse',
  'flick',
  'closing-swell',
  'bow-amount',
  'start-place',
  'staccato',
  'fade',
  'vibrato',
  'tone-match',
] as const;
export type DrillKind = (typeof DRILL_KINDS)[number];

/** How an item is done, the least load first. */
export const WAYS = ['silent', 'plucked', 'held-low', 'bowed'] as const;
export type Way = (typeof WAYS)[number];

/** Why a drill is called for: what of the tune asks for it, and where; or that the player chose it. */
export interface DrillCause {
  readonly by: 'event' | 'mark' | 'bowing' | 'key' | 'chosen';
  readonly event?: EventKind;
  /** The written note, and where of its times played it is so. */
  readonly note?: string;
  readonly at?: number;
  /** A figure of the cause: milliseconds, millimetres, strings or bars, by what it is. */
  readonly figure?: number;
  /** A name that belongs to it: a bowing pattern. */
  readonly name?: string;
}

/** A step of a drill: a small tune to be played until it is clean. */
export interface DrillStage {
  readonly code: StageCode;
  readonly way: Way;
  /** In the beat of the stage's own tune. */
  readonly bpm: number;
  readonly clean: number;
  readonly minutes: number;
  readonly tune: Tune;
}

export interface TuneDrill {
  readonly kind: DrillKind;
  readonly because: DrillCause;
  readonly stages: readonly DrillStage[];
}

/** What a stage is, for words. */
export type StageCode =
  | 'open-string'
  | 'scale'
  | 'scale-two'
  | 'key-figure'
  | 'in-the-tune'
  | 'other-start'
  | 'bar-a-note'
  | 'stroke-a-note'
  | 'stroke-a-note-up'
  | 'compare-angles'
  | 'stop-1'
  | 'stop-half'
  | 'stop-quarter'
  | 'no-stop'
  | 'with-fingers'
  | 'off-string'
  | 'on-string'
  | 'roll-over'
  | 'near-edge'
  | 'middle'
  | 'far-edge'
  | 'pair-short'
  | 'pair-long'
  | 'pair-to-pair'
  | 'upper-fingers'
  | 'lower-fingers'
  | 'bow-upper-alone'
  | 'bow-lower-alone'
  | 'slide-from'
  | 'both-pitches'
  | 'across-short'
  | 'string-by-string'
  | 'swing'
  | 'by-guide-note'
  | 'direct'
  | 'audible-slide'
  | 'set-then-lift'
  | 'pluck'
  | 'bow'
  | 'light-hop'
  | 'press-release'
  | 'from-up-bow'
  | 'both-bows'
  | 'swell-slow'
  | 'swell-return'
  | 'swell-offbeat'
  | 'touch-hold'
  | 'tap-open'
  | 'over-fingers'
  | 'swell-up'
  | 'grab-neighbour'
  | 'two-string-end'
  | 'whole-bow'
  | 'half-bow'
  | 'dance-bow'
  | 'from-its-place'
  | 'gaps'
  | 'lighter'
  | 'no-vibrato'
  | 'slow-wide'
  | 'quick'
  | 'ramp'
  | 'own-tone';

/** Which of the played notes are looked at, by index. */
export type Within = (index: number) => boolean;

/** A kind of drill: why a tune asks for it, and its stages. */
export interface DrillMaker {
  readonly kind: DrillKind;
  /** What of the tune asks for it, as far as those notes go; null: nothing does. */
  readonly cause: (report: TuneReport, within: Within) => DrillCause | null;
  /** Its stages in this tune's key and tuning, around what asks for it where it is asked for; none where the hand cannot. */
  readonly stages: (scene: DrillScene, cause: DrillCause) => DrillStage[];
}

export interface StageOptions {
  readonly way?: Way;
  readonly bpm?: number;
  readonly minutes?: number;
  readonly meter?: SmallGround['meter'];
  readonly start?: SmallGround['start'];
  /** Whole cycles only; left out: as long as its bars. */
  readonly asIs?: boolean;
}

/** The tune's key and tuning as a hand finds them, and how stages are written in it. */
export interface DrillScene {
  readonly report: TuneReport;
  /** Quarters a minute at the tempo wanted. */
  readonly quarters: number;
  /** The open string; null: the player keeps from it. */
  readonly open: (place: Place) => SmallNote | null;
  /** Notes of the key on a string that the hand may use, the open string first. */
  readonly scale: (place: Place) => readonly ScaleStop[];
  readonly stage: (code: StageCode, notes: readonly (SmallNote | null)[], options?: StageOptions) => DrillStage | null;
  /** The bars around a written note, as they stand in the tune. */
  readonly inTune: (note: string | undefined, options?: Pick<StageOptions, 'way' | 'minutes'>) => DrillStage | null;
}
