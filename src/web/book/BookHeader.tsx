import { FileInput, FilePlus2, FolderDown, ListMusic } from 'lucide-react';
import { Link } from 'react-router';
import { summaryWords } from '#words/book';
import { Button } from '../ui/Button';

interface BookHeaderProps {
  readonly count: Parameters<typeof summaryWords>[0];
  readonly isSearching: boolean;
  readonly isEmpty: boolean;
  /** Tunes whose figures are still to be counted, and those of which that was given up. */
  readonly left: number;
  /** Tunes whose own ceiling is still to be counted. */
  readonly ownLeft: number;
  readonly givenUp: number;
  readonly onFiles: () => void;
  readonly onBegin: () => void;
  readonly onImport: () => void;
}

/** How many tunes there are, and the ways in and out. */
export function BookHeader(props: BookHeaderProps) {
  const { count, isSearching, isEmpty, left, ownLeft, givenUp, onFiles, onBegin, onImport } = props;
  return (
    <header className="mb-3 flex flex-wrap items-center justify-between gap-3">
      <div>
        <h1 className="text-page leading-tight">Book</h1>
        <p className="text-muted" role="status">
          {summaryWords(count, isSearching)}
          {left > 0 && ` · checking tunes, ${left} to go`}
          {left === 0 && ownLeft > 0 && ` · counting what holds for you, ${ownLeft} to go`}
          {givenUp > 0 &&
            ` · ${givenUp} could not be checked: ${givenUp === 1 ? 'it opens, plays and prints' : 'they open, play and print'} as ever`}
        </p>
      </div>
      <div className="flex flex-wrap gap-2">
        {!isEmpty && (
          <Link
            to="/sets"
            className="flex items-center gap-2 rounded-md border border-line bg-surface px-3 py-1.5 text-control hover:border-soft"
          >
            <ListMusic size={17} aria-hidden /> Sets
          </Link>
        )}
        {!isEmpty && (
          <Button className="flex items-center gap-2" onClick={onFiles}>
            <FolderDown size={17} aria-hidden /> Files and backup
          </Button>
        )}
        <Button className="flex items-center gap-2" onClick={onBegin}>
          <FilePlus2 size={17} aria-hidden /> Begin a tune
        </Button>
        <Button look="main" className="flex items-center gap-2" onClick={onImport}>
          <FileInput size={17} aria-hidden /> Bring tunes in
        </Button>
      </div>
    </header>
  );
}
