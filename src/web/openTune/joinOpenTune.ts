import type { Store } from '../store/store';
import { autosave } from './autosave';
import { openTuneReducer } from './openTuneSlice';

const joined = new WeakSet<Store>();

/** Brings the bench and its autosave into a store, once. */
export function joinOpenTune(store: Store): void {
  if (joined.has(store)) return;
  joined.add(store);
  store.injectReducer({ reducerPath: 'openTune', reducer: openTuneReducer });
  store.addMiddleware(autosave());
  // The state has it from the next action on.
  store.dispatch({ type: 'openTune/joined' });
}
