import { useMemo, useSyncExternalStore } from 'react';
import { serverApi } from '../api/serverApi';
import { useAppDispatch } from '../store/store';
import { type AttemptQueue, attemptQueue, type QueueState } from './attemptQueue';

/** The queue to the log, and how it stands; what is sent is read anew wherever the log is shown. */
export function useAttemptQueue(): { readonly queue: AttemptQueue; readonly state: QueueState } {
  const dispatch = useAppDispatch();
  const queue = useMemo(
    () => attemptQueue(() => void dispatch(serverApi.util.invalidateTags(['Log', 'Book']))),
    [dispatch],
  );
  return { queue, state: useSyncExternalStore(queue.subscribe, queue.snapshot) };
}
