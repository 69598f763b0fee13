import { Redo2, Undo2 } from 'lucide-react';
import { SignButton } from './Button';

interface UndoRedoProps {
  /** What each would do; null where there is nothing. */
  readonly undoes: string | null;
  readonly redoes: string | null;
  readonly isBusy?: boolean;
  readonly onUndo: () => void;
  readonly onRedo: () => void;
}

/** Undo and redo, each told by what it would do. */
export function UndoRedo({ undoes, redoes, isBusy = false, onUndo, onRedo }: UndoRedoProps) {
  return (
    <>
      <SignButton label={labelOf('Undo', undoes)} disabled={undoes === null || isBusy} onClick={onUndo}>
        <Undo2 size={18} aria-hidden />
      </SignButton>
      <SignButton label={labelOf('Redo', redoes)} disabled={redoes === null || isBusy} onClick={onRedo}>
        <Redo2 size={18} aria-hidden />
      </SignButton>
    </>
  );
}

function labelOf(deed: string, what: string | null): string {
  return what === null ? deed : `${deed}: ${what}`;
}
