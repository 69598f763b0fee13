import { isLeading } from '#core/ability';
import { toNumber } from '#core/base';
import { loopVerdict } from '#core/bowing';
import type { TuneReport } from '#core/report';
import type { EventKind, TimedEvent } from '#core/tempo';
import { type Direction, occurrencesOf } from '#core/tune';
import { type Cut, cutSegment, type Span } from './bites';
import { type NewNotes, newNotes } from './newNotes';
import { segmentsOf } from './segments';

/** A stretch of whole strokes that is learnt as one thing. */
export interface Bite {
  readonly id: string;
  readonly part: string;
  readonly ending: number | null;
  /** Written notes, first and last. */
  readonly from: string;
  readonly to: string;
  /** The same as they are played the first time. */
  readonly first: number;
  readonly last: number;
  readonly notes: number;
  readonly newNotes: number;
  readonly strokes: number;
  readonly turns: number;
  readonly seconds: number;
  /** What becomes of it when it is looped by itself. */
  readonly loop: 'returns' | 'flips';
  /** The bow on which it is entered, by pass: `{ A1: 'down' }`. */
  readonly entry: Readonly<Record<string, Direction>>;
  /** The highest tempo at which all that is in it has its time; null: any. */
  readonly ceilingBpm: number | null;
  /** What binds there. */
  readonly tightest: { readonly index: number; readonly kind: EventKind } | null;
  /** How often it is played, and which share of all playing time that takes. */
  readonly plays: number;
  readonly share: number;
  /** Bites before it in the tune with which it shares notes that are learnt once. */
  readonly sharesWith: readonly string[];
}

/** Two bites that are played one after the other. */
export interface Join {
  readonly from: string;
  readonly to: string;
  /** The played note to which the step leads, the first time it is played. */
  readonly at: number;
  readonly crossing: boolean;
  readonly shift: boolean;
  readonly turn: boolean;
  /** The highest tempo at which the step from one to the other has its time; null: any. */
  readonly ceilingBpm: number | null;
}

/** A tune cut into bites. */
export interface PracticePlan {
  readonly bites: readonly Bite[];
  readonly cuts: readonly Cut[];
  readonly objective: number;
  readonly joins: readonly Join[];
  readonly learnt: NewNotes;
}

export interface CutWish {
  /** Notes wanted in a bite. */
  readonly notesABite?: number;
  /** The player's own cuts, by the written notes before which they stand, in place of the best. */
  readonly given?: ReadonlySet<string>;
}

/** A checked tune cut into what can be learnt, part by part and ending by ending. Time O(c² + n log² n). */
export function practicePlan(report: TuneReport, wish: CutWish = {}): PracticePlan {
  const learnt = newNotes(report);
  const cuttings = segmentsOf(report.tune, report.unrolled).map((segment) => cutSegment(segment, report, learnt, wish));
  const spans = cuttings.flatMap((cutting) => cutting.spans);
  const bites: Bite[] = [];
  for (const [i, span] of spans.entries()) bites.push(biteOf(`b${i + 1}`, span, report, learnt, bites));
  return {
    bites,
    cuts: cuttings.flatMap((cutting) => cutting.cuts),
    objective: cuttings.reduce((sum, cutting) => sum + cutting.objective, 0),
    joins: joinsOf(bites, report),
    learnt,
  };
}

/** Written notes that a bite is played from, ties to others left out. */
export function notesOf({ first, last }: Pick<Bite, 'first' | 'last'>, { unrolled }: TuneReport): string[] {
  return unrolled.notes.slice(first, last + 1).map(({ note }) => note.id);
}

function biteOf(id: string, span: Span, report: TuneReport, learnt: NewNotes, earlier: readonly Bite[]): Bite {
  const { first, last, segment, newNotes: load } = span;
  const { unrolled, figures, timing } = report;
  const { strokes, turns, comesRound } = loopVerdict(unrolled, figures.bowed, first, last);
  const played = unrolled.notes.slice(first, last + 1);
  const met = occurrencesOf(unrolled);
  const starts = met.get(played[0]!.note.id)!;
  const own = new Set(played.map(({ note }) => learnt.model.get(note.id)!));
  const all = unrolled.notes.reduce((sum, { duration }) => sum + toNumber(duration), 0);
  const time = played.reduce(
    (sum, { note }) =>
      sum + met.get(note.id)!.reduce((own, index) => own + toNumber(unrolled.notes[index]!.duration), 0),
    0,
  );
  const { ceilingBpm, tightest } = tightestIn(
    report,
    starts.map((start) => [start, start + last - first] as const),
  );
  return {
    id,
    part: segment.part,
    ending: segment.ending,
    from: played[0]!.note.id,
    to: played[played.length - 1]!.note.id,
    first,
    last,
    notes: played.length,
    newNotes: load,
    strokes,
    turns,
    seconds: timing.onsets[last]! + timing.durations[last]! - timing.onsets[first]!,
    loop: comesRound ? 'returns' : 'flips',
    entry: Object.fromEntries(
      starts.map((index) => {
        const { part, pass } = unrolled.notes[index]!;
        return [`${part}${pass}`, figures.bowed[index]!.bow];
      }),
    ),
    ceilingBpm,
    tightest,
    plays: starts.length,
    share: all > 0 ? time / all : 0,
    sharesWith: earlier
      .filter((bite) => notesOf(bite, report).some((note) => own.has(learnt.model.get(note)!)))
      .map((bite) => bite.id),
  };
}

/** The tightest of what is done inside stretches, the way to their first notes left out. */
export function tightestIn(
  { figures: { check } }: TuneReport,
  stretches: readonly (readonly [first: number, last: number])[],
): Pick<Bite, 'ceilingBpm' | 'tightest'> {
  let tightest: Bite['tightest'] = null;
  let ceilingBpm = Infinity;
  for (const [first, last] of stretches)
    for (let index = first; index <= last && index < check.events.length; index++)
      for (const event of check.events[index]!) {
        if (index === first && isLeading(event.kind)) continue;
        if (event.ceilingBpm < ceilingBpm) [ceilingBpm, tightest] = [event.ceilingBpm, { index, kind: event.kind }];
      }
  return { ceilingBpm: tightest ? ceilingBpm : null, tightest };
}

/** The steps from bite to bite that are played, each once, in the order in which they come. */
function joinsOf(bites: readonly Bite[], report: TuneReport): Join[] {
  const { unrolled, figures } = report;
  const ends = new Map(bites.map((bite) => [unrolled.notes[bite.last]!.note.id, bite]));
  const begins = new Map(bites.map((bite) => [bite.from, bite]));
  const joins = new Map<string, { readonly from: Bite; readonly to: Bite; readonly at: number[] }>();
  for (const { index, note } of unrolled.notes.slice(1)) {
    const to = begins.get(note.id);
    const from = ends.get(unrolled.notes[index - 1]!.note.id);
    if (!to || !from) continue;
    const key = `${from.id} ${to.id}`;
    const join = joins.get(key) ?? { from, to, at: [] };
    join.at.push(index);
    joins.set(key, join);
  }
  return [...joins.values()].map(({ from, to, at }): Join => {
    const leading = at.flatMap((index) =>
      figures.check.events[index]!.filter(({ kind }: TimedEvent) => isLeading(kind)),
    );
    const ceiling = Math.min(Infinity, ...leading.map(({ ceilingBpm }) => ceilingBpm));
    return {
      from: from.id,
      to: to.id,
      at: at[0]!,
      crossing: at.some((index) => figures.arm.crossings[index] != null),
      shift: at.some((index) => figures.moves[index]?.shift != null),
      turn: at.some((index) => figures.bowed[index]!.link === 'change'),
      ceilingBpm: ceiling === Infinity ? null : ceiling,
    };
  });
}
