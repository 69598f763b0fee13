import { useNavigate } from 'react-router';
import { freeName, MAX_SETS, newSet, NO_SETS, type SavedSets, type Sets } from '#contract/sets';
import type { Failure } from '../api/answer';
import { useSaveSetsMutation, useSetsQuery } from '../api/setsApi';
import { useRecordUndo } from '../api/useRecordUndo';

/** Makes a set of tunes, in the order given, and opens it. */
export function useMakeSet(): {
  /** null: there are as many sets as are kept. */
  readonly makeSet: ((tuneIds: readonly string[]) => Promise<void>) | null;
  readonly error: Failure | undefined;
} {
  const { data: record } = useSetsQuery();
  const [save, { error }] = useSaveSetsMutation();
  const steps = useRecordUndo<Sets, SavedSets>('sets', save);
  const navigate = useNavigate();
  const before = record?.sets ?? NO_SETS;
  const makeSet = async (tuneIds: readonly string[]) => {
    const set = newSet(crypto.randomUUID(), freeName(before), tuneIds);
    const next = { sets: [...before.sets, set] };
    if (await steps.change({ before, next }, `new set “${set.name}”`)) void navigate(`/sets/${set.id}`);
  };
  return { makeSet: before.sets.length < MAX_SETS ? makeSet : null, error: error as Failure | undefined };
}
