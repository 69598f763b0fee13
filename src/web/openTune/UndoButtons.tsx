import { Redo2, Undo2 } from 'lucide-react';
import { useAppDispatch } from '../store/store';
import { SignButton } from '../ui/Button';
import { type OpenTune, redone, undone } from './openTuneSlice';

/** Undo and do again, each told by what it would do. */
export function UndoButtons({ open }: { readonly open: OpenTune }) {
  const dispatch = useAppDispatch();
  return (
    <>
      <SignButton
        label={undoLabel('Undo', open.past[open.past.length - 1]?.label)}
        disabled={open.past.length === 0}
        onClick={() => dispatch(undone())}
      >
        <Undo2 size={18} aria-hidden />
      </SignButton>
      <SignButton
        label={undoLabel('Redo', open.future[0]?.label)}
        disabled={open.future.length === 0}
        onClick={() => dispatch(redone())}
      >
        <Redo2 size={18} aria-hidden />
      </SignButton>
    </>
  );
}

function undoLabel(deed: string, label: string | undefined): string {
  return label === undefined ? deed : `${deed}: ${label}`;
}
