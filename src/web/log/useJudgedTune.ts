import { useEffect, useState } from 'react';
import { reportTune, type TuneReport } from '#core/report';
import type { Failure } from '../api/answer';
import { canBeJudged } from '../openTune/judgeFirst';
import { useStoredTune } from '../openTune/useStoredTune';
import { selectPlayer } from '../store/selectSettings';
import { useAppSelector } from '../store/store';

export type JudgedTune =
  | { readonly kind: 'loading' }
  | { readonly kind: 'gone' }
  | { readonly kind: 'too-long' }
  | { readonly kind: 'failed'; readonly failure: Failure; readonly again: () => void }
  | { readonly kind: 'here'; readonly report: TuneReport };

/** A tune of the log with its report; or why it is not there: the log outlives its tunes. */
export function useJudgedTune(id: string): JudgedTune {
  const player = useAppSelector(selectPlayer);
  const { tune, failure, again } = useStoredTune(id);
  const [judged, setJudged] = useState<{
    readonly of: unknown;
    readonly by: unknown;
    readonly report: TuneReport | null;
  } | null>(null);
  useEffect(() => {
    if (!tune) return;
    let isCurrent = true;
    void canBeJudged(tune, player).then((can) => {
      if (isCurrent) setJudged({ of: tune, by: player, report: can ? reportTune(tune, player) : null });
    });
    return () => {
      isCurrent = false;
    };
  }, [tune, player]);
  if (failure) return failure.code === 'not-found' ? { kind: 'gone' } : { kind: 'failed', failure, again };
  if (!tune || judged?.of !== tune || judged.by !== player) return { kind: 'loading' };
  return judged.report ? { kind: 'here', report: judged.report } : { kind: 'too-long' };
}
