import { useAppDispatch } from '../store/store';
import { useUndoKeys } from '../ui/useUndoKeys';
import { redone, undone } from './openTuneSlice';

/** Undo and redo of the open tune by key. */
export function useTuneUndoKeys(): void {
  const dispatch = useAppDispatch();
  useUndoKeys(
    () => dispatch(undone()),
    () => dispatch(redone()),
  );
}
