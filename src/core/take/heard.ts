import type { Seconds } from '#core/base';
import type { Visit } from './align';
import type { Stray } from './closer';
import type { ExpectedNote } from './expected';
import type { Onset } from './onset';
import type { NotePitch } from './pitchOf';
import type { TempoPoint } from './tempoCurve';

/** A note of the plan as it was played. */
export interface HeardNote {
  readonly note: ExpectedNote;
  /** null: the player never came here. */
  readonly visit: Visit | null;
  readonly heard: boolean;
  readonly onset: Seconds;
  readonly onsetUncertaintyMs: number;
  /** Where the next note begins. */
  readonly end: Seconds;
  /** Until when it should sound: its end, but for a rest after it. */
  readonly soundsUntil: Seconds;
  /** Against the player's own time about it; NaN: too little around it. */
  readonly offMs: number;
  /** How much slower than the plan the player is about here. */
  readonly slower: number;
  readonly cents: number;
  readonly centsUncertainty: number;
  readonly pitch: NotePitch | null;
  /** The pitch that was played instead: cents from the one meant. */
  readonly otherCents: number | null;
  readonly level: number;
  readonly confidence: number;
  /** Other pitches in it, as long as they were there. */
  readonly strays: readonly Stray[];
  /** Its time went to the note before, which was held through it, or to the next. */
  readonly isPassedOver: boolean;
  /** The next note of the plan came right after it. */
  readonly isFollowed: boolean;
  /** The note before it on the player's way, and when that began. */
  readonly before: ExpectedNote | null;
  readonly beforeOnset: Seconds;
}

/** Something that was played and is not in the plan. */
export interface AddedNote {
  /** The expected note after which it came. */
  readonly after: number;
  readonly from: Seconds;
  readonly to: Seconds;
}

/** Notes played again, or passed over, at a moment. */
export interface Jump {
  readonly from: number;
  readonly to: number;
  readonly at: Seconds;
}

export interface Heard {
  readonly notes: readonly HeardNote[];
  readonly added: readonly AddedNote[];
  readonly jumps: readonly Jump[];
  /** Expected notes that were left out on a way that went on. */
  readonly leftOut: readonly number[];
}

/** A visit to a note on the player's way, with what came of it. */
export interface Passage {
  readonly visit: Visit;
  readonly onset: Onset;
  readonly tempo: TempoPoint;
  /** The note before it on the way, if it was one of the plan. */
  readonly before: ExpectedNote | null;
  readonly beforeOnset: Seconds;
  readonly end: Seconds;
  readonly isFollowed: boolean;
  /** The note after it on the way, if it is one of the plan. */
  readonly next: ExpectedNote | null;
  /** Something else came right after it: where nothing did, it rings on. */
  readonly isLed: boolean;
}
