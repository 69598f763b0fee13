import { useCallback } from 'react';
import { flushSync } from 'react-dom';
import type { Schools } from '#core/schools';
import { enterOnStaff, pressEntryKey } from '../entry/entryKeys';
import type { EntryState, EntryWay } from '../entry/entryState';
import { pasteWords } from '../entry/pasteWords';
import { entered, entryEnded } from '../openTune/openTuneSlice';
import { useAppDispatch, useAppStore } from '../store/store';
import { focusScore } from './focus';

export interface EntryDeeds {
  readonly pressKey: (key: string) => boolean;
  readonly pasteText: (text: string) => void;
  readonly putOnStaff: (caret: string, step: number) => void;
  readonly changeWay: (way: EntryWay) => void;
  readonly end: () => void;
}

/** Notes as they are entered. Answers from the newest state: quick keys come faster than the page is drawn. */
export function useEntry(entry: EntryState | null, bareFinger: Schools['bareFinger']): EntryDeeds {
  const dispatch = useAppDispatch();
  const store = useAppStore();
  const putOnStaff = useCallback(
    (caret: string, step: number) => {
      const now = store.getState().openTune.open;
      if (now?.entry) dispatch(entered(enterOnStaff(now.tune, { ...now.entry, caret }, step)));
    },
    [dispatch, store],
  );
  return {
    pressKey: (key) => {
      const now = store.getState().openTune.open;
      const outcome = now?.entry ? pressEntryKey(now.tune, now.entry, key, bareFinger) : null;
      if (outcome) dispatch(entered(outcome));
      return outcome !== null;
    },
    pasteText: (text) => {
      const now = store.getState().openTune.open;
      if (now?.entry) dispatch(entered(pasteWords(now.tune, now.entry, text, bareFinger)));
    },
    putOnStaff,
    changeWay: (way) => {
      if (entry) dispatch(entered({ entry: { ...entry, way, place: null } }));
    },
    end: () => {
      // At once: with the field gone, a quick next key would go nowhere.
      flushSync(() => dispatch(entryEnded()));
      focusScore();
    },
  };
}
