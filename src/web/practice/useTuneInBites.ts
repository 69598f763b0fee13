import { format, subDays } from 'date-fns';
import { useMemo } from 'react';
import type { KnownHand } from '#contract/imports';
import type { Landmark, SpanDay } from '#contract/log';
import { type Bite, type LearningOrder, learningOrder, namedPlaces, type PracticePlan } from '#core/practice';
import type { TuneReport } from '#core/report';
import { type Tune, writtenNotes } from '#core/tune';
import { biteWords } from '#words/practice';
import { useHistoryQuery } from '../api/logApi';
import { type KeptPractice, useTunePractice } from '../api/useTunePractice';
import { isSameSpan, landmarkOf } from '../log/spans';
import { wantedPlan } from '../log/wantedPlan';

/** Days of the log that are looked at. */
const HISTORY_DAYS = 400;
export const historySince = (now = new Date()): string => format(subDays(now, HISTORY_DAYS), 'yyyy-MM-dd');

/** `isReady`: what was kept and logged is known. */
export interface TuneInBites extends KeptPractice {
  readonly plan: PracticePlan;
  readonly learnt: LearningOrder;
  /** Days on which a bite was practised, the oldest first. */
  readonly daysOf: (bite: Pick<Bite, 'part' | 'from' | 'to'>) => readonly SpanDay[];
}

/** A checked tune cut as its player wants it, with what the log says of each bite. */
export function useTuneInBites(id: string, report: TuneReport): TuneInBites {
  const kept = useTunePractice(id);
  const { practice } = kept;
  const { data: days, isError: hasNoDays } = useHistoryQuery({ tune: id, since: historySince() });
  const { notesABite, cuts, order } = practice;
  const plan = useMemo(() => wantedPlan(report, { notesABite, cuts }), [report, notesABite, cuts]);
  const learnt = useMemo(() => learningOrder(plan, report, order), [plan, report, order]);
  return {
    ...kept,
    plan,
    learnt,
    daysOf: (bite) => daysOfBite(days ?? [], bite),
    isReady: kept.isReady && (days !== undefined || hasNoDays),
  };
}

/** Days on which a stretch was practised. */
export function daysOfBite(
  days: readonly SpanDay[],
  { part, from, to }: Pick<Bite, 'part' | 'from' | 'to'>,
): SpanDay[] {
  return days.filter(({ span }) => isSameSpan(span, { part, from, to }));
}

/** A bite by its own name or that of a landmark with the same notes, else by where it stands. */
export function nameOfBite(report: TuneReport, landmarks: readonly Landmark[], bite: Bite): string {
  const own = landmarkOf(landmarks, bite);
  if (own) return own.name;
  const like = namedPlaces(report.tune, landmarks).find(
    ({ part, notes }) => part === bite.part && notes[0]!.id === bite.from && notes[notes.length - 1]!.id === bite.to,
  );
  return like ? `${like.landmark.name}, ${biteWords(report, bite)}` : biteWords(report, bite);
}

/** What of a bite its player knows from another tune. */
export interface KnownInBite extends KnownHand {
  /** Notes of the bite that it covers, of how many written ones. */
  readonly covers: number;
  readonly of: number;
}

/** The stretch known from another tune that covers most of a bite; null: too little of it. */
export function knownInBite(
  tune: Tune,
  hands: readonly KnownHand[],
  bite: Pick<Bite, 'from' | 'to'>,
): KnownInBite | null {
  const ids = writtenNotes(tune).map(({ id }) => id);
  const [from, to] = [ids.indexOf(bite.from), ids.indexOf(bite.to)];
  let best: KnownInBite | null = null;
  for (const hand of hands) {
    const covers = Math.min(to + 1, hand.from + hand.notes) - Math.max(from, hand.from);
    if (covers >= MIN_KNOWN && covers > (best?.covers ?? 0)) best = { ...hand, covers, of: to - from + 1 };
  }
  return best;
}

/** Notes of a bite from which on it is told where they are known from: a figure. */
const MIN_KNOWN = 4;

/** The quickest that was clean; null: nothing was. */
export function bestBpm(days: readonly SpanDay[]): number | null {
  const clean = days.flatMap(({ cleanBpm }) => cleanBpm ?? []);
  return clean.length > 0 ? Math.max(...clean) : null;
}
