import { useEffect, useState } from 'react';
import { tuneRoutes } from '#contract/tunes';
import type { Tune } from '#core/tune';
import type { Answer, Failure } from '../api/answer';
import { ask } from '../api/ask';
import { newestDraft } from './drafts';

/** A tune as the server has it, with edits that are still on their way there from a draft. */
export async function findStoredTune(id: string): Promise<Answer<Tune>> {
  const answer = await ask(tuneRoutes.findTune, { params: { id } });
  if (!answer.ok) return answer;
  return { ok: true, value: (await newestDraft(id))?.tune ?? answer.value.tune };
}

/** The same for a page, which may ask again. */
export function useStoredTune(id: string): {
  readonly tune: Tune | null;
  readonly failure: Failure | null;
  readonly again: () => void;
} {
  const [state, setState] = useState<{
    readonly id: string;
    readonly tune: Tune | null;
    readonly failure: Failure | null;
  }>({ id, tune: null, failure: null });
  const [tries, setTries] = useState(0);
  useEffect(() => {
    let isCurrent = true;
    void findStoredTune(id).then((answer) => {
      if (!isCurrent) return;
      setState(answer.ok ? { id, tune: answer.value, failure: null } : { id, tune: null, failure: answer.failure });
    });
    return () => {
      isCurrent = false;
    };
  }, [id, tries]);
  const isOther = state.id !== id;
  return {
    tune: isOther ? null : state.tune,
    failure: isOther ? null : state.failure,
    again: () => {
      setState({ id, tune: null, failure: null });
      setTries(tries + 1);
    },
  };
}
