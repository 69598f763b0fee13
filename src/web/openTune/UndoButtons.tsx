import { useAppDispatch } from '../store/store';
import { UndoRedo } from '../ui/UndoRedo';
import { type OpenTune, redone, undone } from './openTuneSlice';

/** Undo and redo of the open tune. */
export function UndoButtons({ open: { past, future } }: { readonly open: OpenTune }) {
  const dispatch = useAppDispatch();
  return (
    <UndoRedo
      undoes={past.at(-1)?.label ?? null}
      redoes={future[0]?.label ?? null}
      onUndo={() => dispatch(undone())}
      onRedo={() => dispatch(redone())}
    />
  );
}
