import { useCallback } from 'react';
import type { Tune } from '#core/tune';
import { useAppDispatch } from '../store/store';
import { withGoal } from './goalBpm';
import { edited } from './openTuneSlice';

/** Changes of the goal in a row are one step of undo. */
const STEP = 'goal';

export interface Goal {
  readonly set: (bpm: number) => void;
  /** Back to the middle of the dance's band; null where it is there. */
  readonly reset: (() => void) | null;
}

/** The tempo wanted of the open tune, as edits of its plan. */
export function useGoal(tune: Tune): Goal {
  const dispatch = useAppDispatch();
  const set = useCallback(
    (bpm: number) => {
      const next = withGoal(tune, bpm);
      if (next !== tune) dispatch(edited({ tune: next, label: `goal ${next.tempoBpm}`, joins: STEP }));
    },
    [dispatch, tune],
  );
  const reset = useCallback(
    () =>
      dispatch(
        edited({ tune: { ...tune, tempoBpm: null }, label: 'goal in the middle of the usual tempos', joins: STEP }),
      ),
    [dispatch, tune],
  );
  return { set, reset: tune.tempoBpm === null ? null : reset };
}
