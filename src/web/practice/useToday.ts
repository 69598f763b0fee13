import { format } from 'date-fns';
import { useEffect, useMemo, useState } from 'react';
import { logRoutes, type SpanDay, type TunePractice } from '#contract/log';
import type { Ability } from '#core/ability';
import { type Candidate, candidatesOf, learningOrder } from '#core/practice';
import { type PlayerSettings, reportTune, type TuneReport } from '#core/report';
import type { Failure } from '../api/answer';
import { ask } from '../api/ask';
import { useHistoryQuery } from '../api/logApi';
import { useAbility } from '../api/useAbility';
import { isSameSpan } from '../log/spans';
import { wantedPlan } from '../log/wantedPlan';
import { canBeJudged } from '../openTune/judgeFirst';
import { findStoredTune } from '../openTune/useStoredTune';
import { selectPlayer } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { likelyAbility } from './likelyAbility';
import { reviewOf } from './reviews';
import { daysOfBite, historySince, nameOfBite } from './useTuneInBites';

/** Tunes that a session looks at: those practised last. */
const MOST_TUNES = 5;

/** Something to practise, of which tune, where, and how it is run. */
export interface TuneCandidate extends Candidate {
  readonly tuneId: string;
  readonly title: string;
  readonly name: string;
  /** Of its run: `bite-b3`. */
  readonly address: string;
  /** It was practised today. */
  readonly isDone: boolean;
}

interface LoadedTune {
  readonly id: string;
  readonly report: TuneReport;
  readonly practice: TunePractice;
}

export interface Today {
  readonly candidates: readonly TuneCandidate[];
  /** Tunes of the session, the one practised last first. */
  readonly tunes: readonly { readonly id: string; readonly title: string }[];
  readonly isLoading: boolean;
  readonly failure: Failure | undefined;
  /** Why some of its tunes are not among them. */
  readonly missing: Failure | null;
  readonly again: () => void;
}

/** What could be practised today, of the tunes that were practised last. */
export function useToday(now: Date): Today {
  const player = useAppSelector(selectPlayer);
  const { ability: known, isReady } = useAbility();
  const { data: days, error, refetch } = useHistoryQuery({ since: historySince(now) });
  const ids = useMemo(() => lastTunes(days ?? []), [days]);
  const [loaded, setLoaded] = useState<{
    readonly key: string;
    readonly tunes: readonly LoadedTune[];
    readonly failure: Failure | null;
  } | null>(null);
  const [tries, setTries] = useState(0);
  const key = ids.join(' ');
  useEffect(() => {
    let isCurrent = true;
    void Promise.all(
      key
        .split(' ')
        .filter(Boolean)
        .map((id) => loadTune(id, player)),
    ).then((tunes) => {
      if (!isCurrent) return;
      const here = tunes.filter((tune) => tune !== null);
      const failed = here.find((tune) => !('report' in tune)) as Failure | undefined;
      setLoaded({ key, tunes: here.filter((tune) => 'report' in tune), failure: failed ?? null });
    });
    return () => {
      isCurrent = false;
    };
  }, [key, player, tries]);
  const isLoading =
    !isReady || (days === undefined && error === undefined) || (days !== undefined && loaded?.key !== key);
  const candidates = useMemo(() => {
    if (loaded?.key !== key) return [];
    // What is learnt of a player on one tune holds on the others.
    const ability = likelyAbility(known) ?? {};
    return loaded.tunes.flatMap((tune) => candidatesIn(tune, days ?? [], ability, now));
  }, [loaded, key, days, now, known]);
  return {
    candidates,
    tunes: (loaded?.tunes ?? []).map(({ id, report }) => ({ id, title: report.tune.title })),
    isLoading,
    failure: error as Failure | undefined,
    missing: loaded?.failure ?? null,
    again: () => {
      if (error !== undefined) void refetch();
      else setTries(tries + 1);
    },
  };
}

function lastTunes(days: readonly SpanDay[]): string[] {
  const last = new Map<string, string>();
  for (const { tuneId, day } of days) if (day > (last.get(tuneId) ?? '')) last.set(tuneId, day);
  return [...last]
    .sort(([, a], [, b]) => b.localeCompare(a))
    .slice(0, MOST_TUNES)
    .map(([id]) => id);
}

/** A tune with how it is practised; null: it is gone from the book, or longer than a page can judge; or why it did not come. */
async function loadTune(id: string, player: PlayerSettings): Promise<LoadedTune | Failure | null> {
  const [tune, kept] = await Promise.all([findStoredTune(id), ask(logRoutes.findTunePractice, { params: { id } })]);
  if (!tune.ok) return tune.failure.code === 'not-found' ? null : tune.failure;
  if (!kept.ok) return kept.failure;
  if (!(await canBeJudged(tune.value, player))) return null;
  return {
    id,
    report: reportTune(tune.value, player),
    practice: kept.value.practice,
  };
}

function candidatesIn(
  { id, report, practice }: LoadedTune,
  all: readonly SpanDay[],
  ability: Ability,
  now: Date,
): TuneCandidate[] {
  const { notesABite, cuts, order } = practice;
  const plan = wantedPlan(report, { notesABite, cuts });
  const days = all.filter(({ tuneId }) => tuneId === id);
  const ofBite = new Map(plan.bites.map((bite) => [bite.id, daysOfBite(days, bite)]));
  const met = new Set(plan.bites.flatMap((bite) => (ofBite.get(bite.id)!.length > 0 ? bite.id : [])));
  const due = plan.bites.flatMap((bite) => {
    const review = reviewOf(ofBite.get(bite.id)!, now);
    return review?.isDue ? [{ bite: bite.id, recall: review.recall }] : [];
  });
  const today = format(now, 'yyyy-MM-dd');
  // What hurt rests, and so do the ways into it.
  const rests = (bite: string | undefined) =>
    plan.bites.some((own) => own.id === bite && practice.resting.some((one) => isSameSpan(one, own)));
  return candidatesOf(plan, report, learningOrder(plan, report, order).order, { met, ability, due })
    .filter(({ bite, joins }) => !rests(bite) && !rests(joins))
    .map((candidate): TuneCandidate => {
      const bite = plan.bites.find((one) => one.id === candidate.bite)!;
      const name = nameOfBite(report, practice.landmarks, bite);
      const before = plan.bites.find((one) => one.id === candidate.joins);
      return {
        ...candidate,
        tuneId: id,
        title: report.tune.title,
        name: before ? `${nameOfBite(report, practice.landmarks, before)} into ${name}` : name,
        address: candidate.joins ? `join-${candidate.joins}-${candidate.bite}` : `bite-${candidate.bite}`,
        isDone: !candidate.joins && ofBite.get(bite.id)!.some(({ day }) => day === today),
      };
    });
}
