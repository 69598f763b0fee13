import { useEffect, useMemo, useState } from 'react';
import { reportTune, type TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import { failureWords } from '#words/failure';
import type { Answer } from '../api/answer';
import { findStoredTune } from '../openTune/useStoredTune';
import { selectPlayer } from '../store/selectSettings';
import { useAppSelector } from '../store/store';

/** Another tune of the book, checked as the first is. */
export function useSecondTune(id: string | null): {
  readonly report: TuneReport | null;
  readonly problem: string | null;
} {
  const player = useAppSelector(selectPlayer);
  const [second, setSecond] = useState<{ readonly id: string; readonly answer: Answer<Tune> } | null>(null);
  useEffect(() => {
    if (id === null) return;
    let isCurrent = true;
    void findStoredTune(id).then((answer) => isCurrent && setSecond({ id, answer }));
    return () => {
      isCurrent = false;
    };
  }, [id]);
  return useMemo(() => {
    if (second === null || second.id !== id) return { report: null, problem: null };
    const { answer } = second;
    return answer.ok
      ? { report: reportTune(answer.value, player), problem: null }
      : { report: null, problem: failureWords(answer.failure) };
  }, [second, id, player]);
}
