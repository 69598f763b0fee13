import { Suspense, lazy, useCallback, useEffect, useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { BookQuery, BulkDeed, TuneChoice } from '#contract/book';
import type { Tune } from '#core/tune';
import { type Failure, failureWords } from '#words/failure';
import { useAddTunesMutation } from '../api/bookApi';
import { Button } from '../ui/Button';
import { BookFilters } from './BookFilters';
import { BookHeader } from './BookHeader';
import { BookTable } from './BookTable';
import { ChosenBar } from './ChosenBar';
import { EmptyBook } from './EmptyBook';
import { ViewsMenu } from './ViewsMenu';
import { countConditions, filterOf, readQuery, sortInForce, sortedBy, writeQuery } from './bookQuery';
import { type Chosen, NOTHING, countChosen } from './selection';
import { useBook } from './useBook';
import { useBulkDeeds } from './useBulkDeeds';
import { useTunesFromOutside } from './useTunesFromOutside';

const ImportSheet = lazy(() => import('./ImportSheet').then((sheet) => ({ default: sheet.ImportSheet })));
const FilesSheet = lazy(() => import('./FilesSheet').then((sheet) => ({ default: sheet.FilesSheet })));
const BeginSheet = lazy(() => import('./BeginSheet').then((sheet) => ({ default: sheet.BeginSheet })));

/** The whole book: searched, filtered and sorted by the server, and the way in and out for tunes. */
export function BookPage() {
  const [params, setParams] = useSearchParams();
  const query = useMemo(() => readQuery(params), [params]);
  const { book, tunes, count, facets, refetchFacets, more, left, givenUp } = useBook(query);
  const { done, change, undo, deleteRemoved, isBusy, error: changeError } = useBulkDeeds();
  const outside = useTunesFromOutside();
  const [addTunes, { error: beginError }] = useAddTunesMutation();
  const [sheet, setSheet] = useState<'begin' | 'files' | null>(null);
  const [chosen, setChosen] = useState<Chosen>(NOTHING);
  const navigate = useNavigate();
  useEffect(() => {
    document.title = 'Book · Morrin';
  }, []);

  const show = useCallback(
    (next: BookQuery) => {
      setChosen(NOTHING);
      setParams(writeQuery(next), { replace: true });
    },
    [setParams],
  );
  const choice = (): TuneChoice => (chosen.kind === 'all' ? { filter: filterOf(query) } : { ids: [...chosen.ids] });
  const changeChosen = async (deed: BulkDeed) => {
    if (!(await change(choice(), deed))) return;
    if (deed.kind === 'remove' || deed.kind === 'bring-back') setChosen(NOTHING);
    void refetchFacets();
  };
  const begin = async (tune: Tune) => {
    setSheet(null);
    const added = await addTunes({ tunes: [{ tune }] });
    if (added.data) void navigate(`/tunes/${added.data[0]!.id}`);
  };

  const failure = book.error as Failure | undefined;
  const notesProblem = query.notes && failure?.code === 'bad-request' ? notesWords(failure.details) : null;
  const isSearching = Boolean(query.words ?? query.notes) || countConditions(query) > 0;
  const isEmpty = facets !== undefined && facets.tunes === 0 && facets.removed === 0;
  const chosenCount = countChosen(chosen, count?.tunes ?? tunes.length);
  const notDone = changeError ?? (beginError as Failure | undefined);

  return (
    <main
      className={`flex h-full min-h-0 flex-col overflow-y-auto px-5 pt-4 lg:px-8 ${outside.isOver ? 'bg-band' : ''}`}
      {...outside.dropZone}
    >
      <BookHeader
        {...{ count, isSearching, isEmpty, left, givenUp }}
        onFiles={() => setSheet('files')}
        onBegin={() => setSheet('begin')}
        onImport={outside.begin}
      />
      {!isEmpty && (
        <BookFilters query={query} facets={facets} notesProblem={notesProblem} onChange={show}>
          <ViewsMenu query={query} onOpen={show} />
        </BookFilters>
      )}
      {done && (
        <p role="status" className="mb-2 flex items-center gap-3">
          {done.words}
          {done.undo !== null && (
            <Button look="link" aria-keyshortcuts="Control+Z" onClick={() => void undo(done.undo!)}>
              Undo
            </Button>
          )}
        </p>
      )}
      {chosenCount > 0 && (
        <ChosenBar
          count={chosenCount}
          tags={facets?.tags.map(({ value }) => value) ?? []}
          areRemoved={query.removed === 'yes'}
          isBusy={isBusy}
          onDeed={(deed) => void changeChosen(deed)}
          onFiles={() => setSheet('files')}
          onClear={() => setChosen(NOTHING)}
        />
      )}
      {notDone !== undefined && (
        <p role="alert" className="mb-2 text-madder">
          Not done. {failureWords(notDone)}
        </p>
      )}
      {book.isLoading && <p className="py-8 text-muted">Opening the book …</p>}
      {failure !== undefined && notesProblem === null && (
        <div role="alert" className="py-6">
          <p className="mb-3 text-madder">The book cannot be shown. {failureWords(failure)}</p>
          <Button onClick={() => void book.refetch()}>Try again</Button>
        </div>
      )}
      {isEmpty && (
        <EmptyBook onImport={outside.begin} onBegin={() => setSheet('begin')} onFiles={() => setSheet('files')} />
      )}
      {!isEmpty && book.data && tunes.length === 0 && (
        <div className="py-8">
          <p className="mb-2">{noTunesWords(query, isSearching)}</p>
          {isSearching && <Button onClick={() => show({})}>Show the whole book</Button>}
        </div>
      )}
      {book.data?.pages[0]?.isNear && (
        <p role="status" className="mb-1 text-weld-ink">
          Nothing is spelt “{query.words}”. These are spelt nearly so.
        </p>
      )}
      {tunes.length > 0 && failure === undefined && (
        <>
          <div className="flex min-h-0 flex-1 flex-col max-md:min-h-[26rem]">
            <BookTable
              key={params.toString()}
              tunes={tunes}
              total={count?.tunes}
              sort={sortInForce(query)}
              isDown={query.down === 'yes'}
              chosen={chosen}
              hasMore={book.hasNextPage}
              isBusy={book.currentData === undefined}
              onSort={(sort) => show(sortedBy(query, sort, sortInForce(query)))}
              onChoose={setChosen}
              onMore={more}
            />
          </div>
          <BookFoot
            removed={query.removed === 'yes' ? (count?.tunes ?? 0) : null}
            onDelete={() => void deleteRemoved(facets?.asOf ?? '')}
          />
        </>
      )}
      <Suspense fallback={null}>
        {sheet === 'begin' && <BeginSheet onClose={() => setSheet(null)} onDone={(tune) => void begin(tune)} />}
        {sheet === 'files' && (
          <FilesSheet
            choice={chosenCount > 0 ? choice() : null}
            chosen={chosenCount}
            filter={isSearching ? filterOf(query) : null}
            shown={count?.tunes ?? 0}
            total={facets?.tunes ?? 0}
            onClose={() => setSheet(null)}
          />
        )}
        {outside.importing && <ImportSheet input={outside.importing.input} onClose={outside.end} />}
      </Suspense>
    </main>
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
    <footer className="flex flex-wrap items-center justify-between gap-x-4 border-t border-line py-2 text-[13.5px] text-muted">
      <p className="max-w-3xl">
        <b>Stands to</b>: the highest tempo at which every stroke and crossing has its time; the shaded stretch is the
        usual band. Arrows walk, Space chooses, Enter opens.
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

/** Why there is nothing to show. */
function noTunesWords(query: BookQuery, isSearching: boolean): string {
  if (query.removed === 'yes') return 'Nothing is out of the book.';
  return isSearching ? 'No tune is like that.' : 'Every tune is taken out of the book; the filter shows them.';
}

function notesWords(details: unknown): string | null {
  const first = Array.isArray(details) ? (details[0] as { path?: string; message?: string } | undefined) : undefined;
  return first?.path === 'notes' && first.message ? first.message : null;
}
