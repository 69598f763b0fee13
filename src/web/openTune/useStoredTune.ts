import { useEffect, useState } from 'react';
import { tuneRoutes } from '#contract/tunes';
import type { Tune } from '#core/tune';
import type { Failure } from '../api/answer';
import { ask } from '../api/ask';
import { newestDraft } from './drafts';

/** A tune as the server has it, with edits that are still on their way there from a draft. */
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
    void ask(tuneRoutes.findTune, { params: { id } }).then(async (answer) => {
      const draft = answer.ok ? await newestDraft(id) : null;
      if (!isCurrent) return;
      if (answer.ok) setState({ id, tune: draft?.tune ?? answer.value.tune, failure: null });
      else setState({ id, tune: null, failure: answer.failure });
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
