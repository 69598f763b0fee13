import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { RevisedQueue } from './revisedRecord';

// The store’s state holds the server’s own, so its type is not known before that.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type PagesDispatch = ThunkDispatch<any, any, UnknownAction>;

/** The queues of a store, by its dispatch: one for each record that is saved as a whole. */
const queues = new WeakMap<object, Map<string, unknown>>();

/** The one queue of a record in a store; `deps` are taken when it is first asked for. */
export function queueOf<V, S extends { readonly revision: number }>(
  name: string,
  dispatch: PagesDispatch,
  deps: ConstructorParameters<typeof RevisedQueue<V, S>>[0],
): RevisedQueue<V, S> {
  let own = queues.get(dispatch);
  if (!own) queues.set(dispatch, (own = new Map()));
  let queue = own.get(name) as RevisedQueue<V, S> | undefined;
  if (!queue) own.set(name, (queue = new RevisedQueue<V, S>(deps)));
  return queue;
}
