import type { BeatsPerMinute, Fraction, Seconds } from '#core/base';
import type { Disturbance } from '#core/bowing';
import type { Fingering, HandStop } from '#core/fingering';
import type { Obstacle, Ornament } from '#core/ornaments';
import type { EventKind } from '#core/tempo';
import type { Direction, Link, NoteMark, Place, Tune, Unrolled } from '#core/tune';
import type { Figures, ReportSettings, SharedStroke, Trial } from './figures';

export type Severity = 'problem' | 'care' | 'note';

/** Where a finding stands: its first note as played. */
export interface FindingPlace {
  readonly part: string;
  readonly pass: number;
  readonly bar: number;
  readonly beat: number;
}

/** A link edit; `pass` null: on all passes. */
export interface LinkEdit {
  readonly id: string;
  readonly link: Link;
  readonly pass: number | null;
}

/** A mark, a drone, a wished stroke length or another length set on a note. */
export type NoteEdit =
  | { readonly id: string; readonly mark: NoteMark }
  | { readonly id: string; readonly unmark: NoteMark }
  | { readonly id: string; readonly refinger: Pick<HandStop, 'place' | 'finger' | 'position'> }
  | { readonly id: string; readonly drone: 'lower' | 'upper' | null }
  | { readonly id: string; readonly bowLength: number }
  | { readonly id: string; readonly duration: Fraction };

/** What can be done about a finding, with what it buys, counted by really doing it. */
export interface Mend {
  readonly deed:
    | 'split'
    | 'join'
    | 'turn'
    | 'retake'
    | 'start'
    | 'unlock'
    | 'slower'
    | 'rebar'
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
    /** All places of an equal figure are bowed like one of them. */
    | 'make-alike'
    /** A drone is moved to the other side, or taken off. */
    | 'other-drone'
    | 'no-drone';
  readonly edits: readonly LinkEdit[];
  /** What is set on notes beside their links. */
  readonly notes?: readonly NoteEdit[];
  /** Direction of the tune's first stroke, where the mend is to begin on the other bow. */
  readonly start?: Direction;
  readonly place: FindingPlace | null;
  /** What the second of two edits does, and where. */
  readonly also?: { readonly deed: 'split' | 'join' | 'turn' | 'retake'; readonly place: FindingPlace };
  /** What it costs beside the gain. */
  readonly disturbs?: readonly Disturbance[];
  /** Bar from which the bar lines are drawn anew. */
  readonly barId?: string;
  /** Ceiling of the whole tune afterwards. */
  readonly ceilingBpm: BeatsPerMinute | null;
  /** Tempo to which the place itself stands afterwards, where the finding is about one place; null at any tempo. */
  readonly hereBpm?: BeatsPerMinute | null;
  /** Reverse crossings that are left, where the finding is about them. */
  readonly reverseOvals?: number;
  /** Strokes that are still outside the working window, or jerks that are left, where the finding is about them. */
  readonly outside?: number;
  readonly jerks?: number;
  /** Turning of the arm that it saves. */
  readonly armDegreesSaved?: number;
  readonly comesRound: boolean;
  /** Parts that are still entered in two directions afterwards. */
  readonly flippedParts: readonly string[];
}

/** A finding as data; words are made from it elsewhere. */
export type Finding = {
  readonly severity: Severity;
  readonly ids: readonly string[];
  readonly place: FindingPlace;
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
      readonly places: number;
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

/** Most mends that a finding names. */
export const MENDS_OFFERED = 3;

export interface FindingInput {
  readonly tune: Tune;
  readonly unrolled: Unrolled;
  readonly fingers: ReadonlyMap<string, Fingering>;
  readonly figures: Figures;
  readonly settings: ReportSettings;
  /** Sounding seconds of each played note. */
  readonly durations: readonly Seconds[];
  /** What link edits, and another start direction where one is given, would lead to. */
  readonly attempt: (edits: readonly LinkEdit[], start?: Direction) => Trial;
  /** Figures and strokes of another version of the tune: for what is more than links. */
  readonly recompute: (tune: Tune) => {
    readonly figures: Figures;
    readonly sharedStrokes: () => readonly SharedStroke[];
  };
  /** Strokes with the hair shared out; counted when they are first asked for. */
  readonly shared: () => readonly SharedStroke[];
}

export function placeOf({ unrolled }: FindingInput, index: number): FindingPlace {
  const { part, pass, bar, beat } = unrolled.notes[index]!;
  return { part, pass, bar, beat };
}

export function mendBy(
  input: FindingInput,
  deed: Mend['deed'],
  edits: readonly LinkEdit[],
  { round, ceilingBpm }: Pick<Trial, 'round' | 'ceilingBpm'> = edits.length > 0 ? input.attempt(edits) : asItIs(input),
): Mend {
  const index = input.unrolled.notes.findIndex(({ note }) => note.id === edits[0]?.id);
  return {
    deed,
    edits,
    place: index >= 0 ? placeOf(input, index) : null,
    ceilingBpm: ceilingBpm(),
    comesRound: round.comesRound,
    flippedParts: round.flippedParts,
  };
}

function asItIs({ figures: { ledger, check } }: FindingInput): Pick<Trial, 'round' | 'ceilingBpm'> {
  return { round: ledger, ceilingBpm: () => check.ceiling?.ceilingBpm ?? null };
}
