import type { Store } from '../app/store';
import { autosave } from './autosave';
import { benchReducer } from './benchSlice';

const joined = new WeakSet<Store>();

/** Brings the bench and its autosave into a store, once. */
export function joinBench(store: Store): void {
  if (joined.has(store)) return;
  joined.add(store);
  store.injectReducer({ reducerPath: 'bench', reducer: benchReducer });
  store.addMiddleware(autosave());
  // The state has it from the next action on.
  store.dispatch({ type: 'bench/joined' });
}
