import { combineSlices, configureStore, createDynamicMiddleware } from '@reduxjs/toolkit';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { tunesApi } from '../api/tunesApi';
import type { BenchState } from '../bench/benchSlice';

/** What every room has; the bench joins when a room that needs it is entered. */
export interface RootState extends ReturnType<ReturnType<typeof firstReducer>> {
  readonly bench: BenchState;
}

const firstReducer = () => combineSlices(tunesApi);

/** A store without the bench: the book is opened without a line of it. */
export function createStore() {
  const reducer = firstReducer().withLazyLoadedSlices<{ bench: BenchState }>();
  const late = createDynamicMiddleware();
  const store = configureStore({
    reducer,
    // Whole tunes with their history are in the state: walking through them on every action would cost each edit.
    middleware: (defaults) =>
      defaults({ serializableCheck: false, immutableCheck: false }).concat(tunesApi.middleware, late.middleware),
  });
  const getState = store.getState as () => RootState;
  return { ...store, getState, injectReducer: reducer.inject, addMiddleware: late.addMiddleware };
}

export type Store = ReturnType<typeof createStore>;

export const useAppDispatch = useDispatch.withTypes<Store['dispatch']>();
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppStore = useStore.withTypes<Store>();
