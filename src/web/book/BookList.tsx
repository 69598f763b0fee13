import type { BookQuery } from '#contract/book';
import type { TuneSummary } from '#contract/tunes';
import { Button } from '../ui/Button';
import { sortedBy, sortInForce } from './bookQuery';
import { BookTable } from './BookTable';
import type { Chosen } from './selection';

interface BookListProps {
  readonly query: BookQuery;
  readonly tunes: readonly TuneSummary[];
  /** How many there are in all; undefined until they are counted. */
  readonly total: number | undefined;
  readonly chosen: Chosen;
  readonly hasMore: boolean;
  readonly isBusy: boolean;
  readonly onShow: (query: BookQuery) => void;
  readonly onChoose: (chosen: Chosen) => void;
  readonly onMore: () => void;
  /** Deletes what is out of the book. */
  readonly onDelete: () => void;
}

/** The tunes, and how the list is read. */
export function BookList({ query, tunes, total, onShow, onDelete, ...list }: BookListProps) {
  const sort = sortInForce(query);
  return (
    <>
      <div className="flex min-h-0 flex-1 flex-col max-md:min-h-[26rem]">
        <BookTable
          {...list}
          tunes={tunes}
          total={total}
          sort={sort}
          isDown={query.down === 'yes'}
          onSort={(next) => onShow(sortedBy(query, next, sort))}
        />
      </div>
      <BookFoot removed={query.removed === 'yes' ? (total ?? 0) : null} onDelete={onDelete} />
    </>
  );
}

interface BookFootProps {
  /** Tunes out of the book that are shown; null where those in it are. */
  readonly removed: number | null;
  readonly onDelete: () => void;
}

/** How the list is read; what is out of the book can be deleted here. */
function BookFoot({ removed, onDelete }: BookFootProps) {
  return (
    <footer className="flex flex-wrap items-center justify-between gap-x-4 border-t border-line py-2 text-hint text-muted">
      <p className="max-w-3xl">
        <b>Holds up to</b>: the highest tempo at which every stroke and crossing has its time; the shaded stretch is the
        usual band, the ring where it ends for your hands. Arrows walk, Space chooses, Enter opens.
      </p>
      {removed !== null && (
        <Button
          look="small"
          className="text-madder"
          onClick={() => {
            if (window.confirm(`Delete ${removed} tunes for good? This cannot be undone.`)) onDelete();
          }}
        >
          Delete them for good
        </Button>
      )}
    </footer>
  );
}
