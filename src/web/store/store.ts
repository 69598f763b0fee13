import { combineSlices, configureStore, createDynamicMiddleware } from '@reduxjs/toolkit';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { serverApi } from '../api/serverApi';

/** What a room brings into the state when it is entered; each slice adds its own line. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- slices merge theirs into it
export interface LateSlices {}

/** What every room has. */
export type RootState = ReturnType<ReturnType<typeof firstReducer>> & LateSlices;

const firstReducer = () => combineSlices(serverApi);

/** A store without the open tune: the book is opened without a line of it. */
export function createStore() {
  const reducer = firstReducer().withLazyLoadedSlices<LateSlices>();
  const late = createDynamicMiddleware();
  const store = configureStore({
    reducer,
    // Whole tunes with their history are in the state: walking through them on every action would cost each edit.
    middleware: (defaults) =>
      defaults({ serializableCheck: false, immutableCheck: false }).concat(serverApi.middleware, late.middleware),
  });
  const getState = store.getState as () => RootState;
  return { ...store, getState, injectReducer: reducer.inject, addMiddleware: late.addMiddleware };
}

export type Store = ReturnType<typeof createStore>;

export const useAppDispatch = useDispatch.withTypes<Store['dispatch']>();
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppStore = useStore.withTypes<Store>();
