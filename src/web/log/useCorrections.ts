import { useState } from 'react';
import type { Attempt } from '#contract/log';
import { useAttemptQueue } from './useAttemptQueue';

/** Changes of what is logged: each is a further entry, holds here at once, and the last can be taken back. */
export function useCorrections() {
  const { queue, state } = useAttemptQueue();
  /** Corrections by what they correct: they hold here at once, though the server may not have them yet. */
  const [corrected, setCorrected] = useState<ReadonlyMap<string, Attempt>>(new Map());
  /** What was corrected last, as it was and as it is: it can be taken back. */
  const [last, setLast] = useState<{ readonly before: Attempt; readonly now: Attempt } | null>(null);
  const correct = (before: Attempt, more: Partial<Attempt>) => {
    const now = { ...before, ...more, id: crypto.randomUUID(), corrects: before.id };
    void queue.add(now);
    setCorrected((known) => new Map(known).set(before.id, now));
    return now;
  };
  return {
    queue,
    waiting: state.waiting,
    last,
    change: (before: Attempt, more: Partial<Attempt>) => setLast({ before, now: correct(before, more) }),
    undo: () => {
      if (!last) return;
      // A correction of the correction: nothing in the log is ever overwritten. What was removed comes back as it was.
      const { id: _id, ...was } = last.before;
      correct(last.now, { ...was, isWithdrawn: false });
      setLast(null);
    },
    /** Attempts with all that was put right in them, without those that were removed. */
    current: (attempts: readonly Attempt[]) =>
      attempts.map((one) => latest(one, corrected)).filter(({ isWithdrawn }) => !isWithdrawn),
  };
}

export type Corrections = ReturnType<typeof useCorrections>;

function latest(attempt: Attempt, corrected: ReadonlyMap<string, Attempt>): Attempt {
  const next = corrected.get(attempt.id);
  return next ? latest(next, corrected) : attempt;
}
