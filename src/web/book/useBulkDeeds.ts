import { useCallback, useEffect, useState } from 'react';
import type { BulkDeed, TuneChoice } from '#contract/book';
import { deedWords } from '#words/book';
import { type Failure, failureWords } from '#words/failure';
import { useChangeTunesMutation, useDeleteRemovedMutation, useTakeBackChangeMutation } from '../api/bookApi';

/** What was done to many tunes last, and by what it is taken back. */
interface Done {
  readonly words: string;
  readonly undo: string | null;
}

/** Changes of many tunes at once; the last one is taken back by Ctrl Z. */
export function useBulkDeeds() {
  const [changeTunes, { isLoading: isBusy, error }] = useChangeTunesMutation();
  const [takeBack] = useTakeBackChangeMutation();
  const [emptyRemoved] = useDeleteRemovedMutation();
  const [done, setDone] = useState<Done | null>(null);
  const undo = useCallback(
    async (id: string) => {
      setDone(null);
      const answer = await takeBack(id);
      setDone({ words: answer.error ? failureWords(answer.error as Failure) : 'Undone.', undo: null });
    },
    [takeBack],
  );
  useEffect(() => {
    const id = done?.undo;
    if (!id) return;
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'z' || !(event.ctrlKey || event.metaKey)) return;
      if ((event.target as Element).closest('input[type=text], textarea, [role=dialog]')) return;
      event.preventDefault();
      void undo(id);
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [done, undo]);
  /** Whether it was done. */
  const change = async (choice: TuneChoice, deed: BulkDeed): Promise<boolean> => {
    const { data } = await changeTunes({ choice, deed });
    if (!data) return false;
    setDone({ words: deedWords(deed, data.changed), undo: data.changed > 0 ? data.undo : null });
    return true;
  };
  /** Deletes for good what was out of the book by then. */
  const deleteRemoved = async (by: string) => {
    await emptyRemoved(by);
    setDone({ words: 'Deleted for good.', undo: null });
  };
  return { done, change, undo, deleteRemoved, isBusy, error: error as Failure | undefined };
}
