import type { BeatsPerMinute } from '#core/base';
import type { Disturbance } from '#core/bowing';
import type { Direction } from '#core/tune';
import type { LinkEdit, NoteEdit } from './edits';
import type { Figures, Trial } from './figures';
import { type FindingInput, type Spot, spotOf } from './findingInput';

/** What is done about a finding: each deed with what it sets, and nothing else. */
export type Deed =
  /** The bow is turned at other notes. */
  | {
      readonly deed: Turn;
      readonly edits: readonly LinkEdit[];
      /** What the second of two edits does, and where. */
      readonly also?: { readonly deed: Turn; readonly spot: Spot };
      /** What it costs beside the gain. */
      readonly disturbs?: readonly Disturbance[];
    }
  /** All places of an equal figure are bowed like one of them. */
  | { readonly deed: 'make-alike'; readonly edits: readonly LinkEdit[] }
  /** The tune begins on the other bow. */
  | { readonly deed: 'start'; readonly start: Direction }
  | { readonly deed: 'unlock' }
  | { readonly deed: 'slower' }
  /** The bar lines are drawn anew from a bar. */
  | { readonly deed: 'rebar'; readonly barId: string }
  | { readonly deed: NoteDeed; readonly notes: readonly NoteEdit[] };

export type Turn = 'split' | 'join' | 'turn' | 'retake';

export type NoteDeed =
  /** The last note is made as long as the bar line wants it. */
  | 'fit-last-note'
  /** Long strokes are drawn with less bow. */
  | 'less-bow'
  /** A quick stroke is meant as an accent. */
  | 'accent'
  /** The bow stays on a pair of strings. */
  | 'hold-pair'
  /** A string that was not said is confirmed. */
  | 'confirm-string'
  /** One finger lies across both strings. */
  | 'barre'
  /** The note is taken with another finger, on another string or in another position. */
  | 'refinger'
  /** An ornament is left off. */
  | 'leave-off'
  /** A slide is pressed in instead. */
  | 'press-in'
  /** A drone is moved to the other side, or taken off. */
  | 'other-drone'
  | 'no-drone';

/** What a mend buys beside the round and the ceiling of the whole tune, in the figure of its finding. */
export type Gain =
  | { readonly of: 'tune' }
  /** Tempo to which the place itself stands afterwards; null at any tempo. */
  | { readonly of: 'spot'; readonly bpm: BeatsPerMinute | null }
  /** Reverse crossings, strokes outside the working window or jerks that are left. */
  | { readonly of: 'reverse-crossings' | 'outside' | 'jerks'; readonly left: number }
  /** Turning of the arm that it saves. */
  | { readonly of: 'arm'; readonly degreesSaved: number };

/** What can be done about a finding, with what it buys, counted by really doing it. */
export type Mend = Deed & {
  /** Where it is done, where that is one place. */
  readonly spot: Spot | null;
  readonly gain: Gain;
  /** Ceiling of the whole tune afterwards. */
  readonly ceilingBpm: BeatsPerMinute | null;
  readonly comesRound: boolean;
  /** Parts that are still entered in two directions afterwards. */
  readonly flippedParts: readonly string[];
};

/** The links that a mend sets: none where it sets something else. */
export const linkEditsOf = (mend: Deed): readonly LinkEdit[] => ('edits' in mend ? mend.edits : []);

/** Most mends that a finding names. */
export const MENDS_OFFERED = 3;

/** What a trial or a count of the mended tune says of the whole. */
export type Outcome = Pick<Trial, 'round' | 'ceilingBpm'>;

export const outcomeOf = ({ ledger, check }: Figures): Outcome => ({
  round: ledger,
  ceilingBpm: () => check.ceiling?.ceilingBpm ?? null,
});

/**
 * A mend from its deed and what came of it; without an outcome links are tried, and what changes nothing counted keeps the
 * figures as they are. Its place is the note of its first link, or that of the note at `index`.
 */
export function mendBy(
  input: FindingInput,
  deed: Deed,
  { outcome, gain = { of: 'tune' }, index }: { outcome?: Outcome; gain?: Gain; index?: number } = {},
): Mend {
  const edits = linkEditsOf(deed);
  const { round, ceilingBpm } = outcome ?? (edits.length > 0 ? input.attempt(edits) : outcomeOf(input.figures));
  const at = index ?? input.unrolled.notes.findIndex(({ note }) => note.id === edits[0]?.id);
  return {
    ...deed,
    spot: at >= 0 ? spotOf(input, at) : null,
    gain,
    ceilingBpm: ceilingBpm(),
    comesRound: round.comesRound,
    flippedParts: round.flippedParts,
  };
}
