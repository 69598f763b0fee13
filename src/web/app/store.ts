import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector, useStore } from 'react-redux';
import { tunesApi } from '../api/tunesApi';
import { autosave } from '../bench/autosave';
import { benchReducer } from '../bench/benchSlice';

export function createStore() {
  return configureStore({
    reducer: { bench: benchReducer, [tunesApi.reducerPath]: tunesApi.reducer },
    // Whole tunes with their history are in the state: walking through them on every action would cost each edit.
    middleware: (defaults) =>
      defaults({ serializableCheck: false, immutableCheck: false }).concat(tunesApi.middleware, autosave()),
  });
}

export type Store = ReturnType<typeof createStore>;
export type RootState = ReturnType<Store['getState']>;

export const useAppDispatch = useDispatch.withTypes<Store['dispatch']>();
export const useAppSelector = useSelector.withTypes<RootState>();
export const useAppStore = useStore.withTypes<Store>();
