import { useCallback } from 'react';
import { setBowLengths } from '#core/bowing';
import { setDrone } from '#core/editing';
import { counted } from '#words/plural';
import { edited, entered, selected } from '../openTune/openTuneSlice';
import { barSelection, partSelection } from '../openTune/selection';
import type { PaintedDrones } from '../score/ArmPaint';
import { useAppDispatch, useAppStore } from '../store/store';
import { focusEntry } from './focus';

export interface ScoreDeeds {
  readonly pick: (id: string, extend: boolean) => void;
  readonly pickWhole: (what: { readonly bar: string } | { readonly part: string }) => void;
  readonly pullStroke: (head: string, ratio: number) => void;
  readonly paintDrones: (drones: PaintedDrones) => void;
}

/**
 * What the pointer does on the score. The same functions from render to render, so that lines an action leaves alone are
 * not drawn again.
 */
export function useScoreDeeds(): ScoreDeeds {
  const dispatch = useAppDispatch();
  const store = useAppStore();
  const pick = useCallback(
    (id: string, extend: boolean) => {
      const now = store.getState().openTune.open;
      if (now?.entry) {
        dispatch(entered({ entry: { ...now.entry, caret: id, rhythm: { ...now.entry.rhythm, filled: 0 } } }));
        focusEntry();
      } else dispatch(selected({ anchor: (extend && now?.selection?.anchor) || id, focus: id }));
    },
    [dispatch, store],
  );
  const pickWhole = useCallback(
    (what: { readonly bar: string } | { readonly part: string }) => {
      const now = store.getState().openTune.open;
      if (!now || now.entry) return;
      dispatch(selected('bar' in what ? barSelection(now.tune, what.bar) : partSelection(now.tune, what.part)));
    },
    [dispatch, store],
  );
  const pullStroke = useCallback(
    (head: string, ratio: number) => {
      const now = store.getState().openTune.open;
      if (!now) return;
      const next = setBowLengths(now.tune, new Map([[head, ratio === 1 ? null : ratio]]));
      dispatch(edited({ tune: next, label: `stroke ${ratio > 1 ? 'longer' : 'shorter'} than its own` }));
      dispatch(selected({ anchor: head, focus: head }));
    },
    [dispatch, store],
  );
  const paintDrones = useCallback(
    (drones: PaintedDrones) => {
      const now = store.getState().openTune.open;
      if (!now) return;
      let next = now.tune;
      for (const side of ['lower', 'upper', null] as const) {
        const chosen = new Set([...drones].flatMap(([id, wanted]) => (wanted === side ? [id] : [])));
        if (chosen.size > 0) next = setDrone(next, chosen, side);
      }
      const isOff = [...drones.values()].every((side) => side === null);
      dispatch(edited({ tune: next, label: `drone ${isOff ? 'off' : 'on'} ${counted(drones.size, 'note')}` }));
      const ids = [...drones.keys()];
      dispatch(selected({ anchor: ids[0]!, focus: ids[ids.length - 1]! }));
    },
    [dispatch, store],
  );
  return { pick, pickWhole, pullStroke, paintDrones };
}
