import { lazy, Suspense, useCallback, useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { BookQuery, BulkDeed, TuneChoice } from '#contract/book';
import { MAX_SET_TUNES } from '#contract/sets';
import type { Tune } from '#core/tune';
import { type Failure, failureWords } from '#words/failure';
import { useAddTunesMutation } from '../api/bookApi';
import { selectWords } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { NotRead } from '../ui/PageState';
import { useTitle } from '../ui/useTitle';
import { BookFilters } from './BookFilters';
import { BookHeader } from './BookHeader';
import { BookList } from './BookList';
import { countConditions, filterOf, readQuery, writeQuery } from './bookQuery';
import { ChosenBar } from './ChosenBar';
import { EmptyBook } from './EmptyBook';
import { type Chosen, countChosen, NOTHING } from './selection';
import { useBook } from './useBook';
import { useBulkDeeds } from './useBulkDeeds';
import { useMakeSet } from './useMakeSet';
import { useTunesFromOutside } from './useTunesFromOutside';
import { ViewsMenu } from './ViewsMenu';
import { isWelcomeSeen, keepWelcomeSeen, Welcome } from './Welcome';

const ImportSheet = lazy(() => import('./ImportSheet').then((sheet) => ({ default: sheet.ImportSheet })));
const FilesSheet = lazy(() => import('./FilesSheet').then((sheet) => ({ default: sheet.FilesSheet })));
const BeginSheet = lazy(() => import('./BeginSheet').then((sheet) => ({ default: sheet.BeginSheet })));

/** The whole book: searched, filtered and sorted by the server, and the way in and out for tunes. */
export function BookPage() {
  const [params, setParams] = useSearchParams();
  const query = useMemo(() => readQuery(params), [params]);
  const { book, tunes, count, facets, refetchFacets, more, left, ownLeft, givenUp } = useBook(query);
  const { done, change, undo, deleteRemoved, isBusy, error: changeError } = useBulkDeeds();
  const outside = useTunesFromOutside();
  const words = useAppSelector(selectWords);
  const { makeSet, error: setError } = useMakeSet();
  const [addTunes, { error: beginError }] = useAddTunesMutation();
  const [sheet, setSheet] = useState<'begin' | 'files' | null>(null);
  const [chosen, setChosen] = useState<Chosen>(NOTHING);
  const [isNew, setNew] = useState(() => !isWelcomeSeen());
  const doneWithWelcome = () => {
    keepWelcomeSeen();
    setNew(false);
  };
  const navigate = useNavigate();
  useTitle('Book');

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

  const shown = shownOf(query, { book, tunes, count, facets });
  const { failure, notesProblem, isSearching, isEmpty } = shown;
  const first = tunes.find(({ flippedParts }) => flippedParts.length === 1) ?? tunes[0];
  const chosenCount = countChosen(chosen, count?.tunes ?? tunes.length);

  return (
    <main
      className={`flex h-full min-h-0 flex-col overflow-y-auto px-5 pt-4 lg:px-8 ${outside.isOver ? 'bg-band' : ''}`}
      {...outside.dropZone}
    >
      <BookHeader
        {...{ count, isSearching, isEmpty, left, ownLeft, givenUp }}
        onFiles={() => setSheet('files')}
        onBegin={() => setSheet('begin')}
        onImport={outside.begin}
      />
      {isNew && first && (
        <Welcome tune={first} onImport={outside.begin} onBegin={() => setSheet('begin')} onDone={doneWithWelcome} />
      )}
      {!isEmpty && (
        <BookFilters query={query} facets={facets} words={words} notesProblem={notesProblem} onChange={show}>
          <ViewsMenu query={query} onOpen={show} />
        </BookFilters>
      )}
      <DoneLine done={done} onUndo={(undone) => void undo(undone)} />
      {chosenCount > 0 && (
        <ChosenBar
          count={chosenCount}
          tags={shown.tags}
          areRemoved={query.removed === 'yes'}
          isBusy={isBusy}
          onDeed={(deed) => void changeChosen(deed)}
          onFiles={() => setSheet('files')}
          onSet={
            makeSet && chosen.kind === 'some' && chosenCount <= MAX_SET_TUNES
              ? () => void makeSet(inOrderShown(chosen.ids, tunes))
              : null
          }
          onClear={() => setChosen(NOTHING)}
        />
      )}
      <NotDoneLine failure={changeError ?? setError ?? (beginError as Failure | undefined)} />
      <BookState
        isLoading={book.isLoading}
        failure={notesProblem === null ? failure : undefined}
        onRetry={() => void book.refetch()}
      />
      {isEmpty && (
        <EmptyBook onImport={outside.begin} onBegin={() => setSheet('begin')} onFiles={() => setSheet('files')} />
      )}
      {shown.what === 'nothing' && <NothingFound query={query} isSearching={isSearching} onShowAll={() => show({})} />}
      {shown.isNear && (
        <p role="status" className="mb-1 text-weld-ink">
          No match for “{query.words}”. These are close:
        </p>
      )}
      {shown.what === 'list' && (
        <BookList
          key={params.toString()}
          {...{ query, tunes, chosen }}
          total={count?.tunes}
          hasMore={book.hasNextPage}
          isBusy={book.currentData === undefined}
          onShow={show}
          onChoose={setChosen}
          onMore={more}
          onDelete={() => void deleteRemoved(facets?.asOf ?? '')}
        />
      )}
      <Suspense fallback={null}>
        {sheet === 'begin' && <BeginSheet onClose={() => setSheet(null)} onDone={(tune) => void begin(tune)} />}
        {sheet === 'files' && (
          <FilesSheet
            choice={chosenCount > 0 ? choice() : null}
            chosen={chosenCount}
            filter={isSearching ? filterOf(query) : null}
            shown={shown.count}
            total={shown.total}
            onClose={() => setSheet(null)}
          />
        )}
        {outside.importing && <ImportSheet input={outside.importing.input} onClose={outside.end} />}
      </Suspense>
    </main>
  );
}

/** Tunes that are chosen, as they stand in the list; those that are not in it any more come last. */
function inOrderShown(ids: ReadonlySet<string>, tunes: readonly { readonly id: string }[]): string[] {
  const shown = tunes.map(({ id }) => id).filter((id) => ids.has(id));
  return [...new Set([...shown, ...ids])];
}

type Book = Pick<ReturnType<typeof useBook>, 'book' | 'tunes' | 'count' | 'facets'>;

/** What there is to show of a question's answer, and what stands in its place. */
function shownOf(query: BookQuery, { book, tunes, count, facets }: Book) {
  const failure = book.error as Failure | undefined;
  const isEmpty = facets?.tunes === 0 && facets.removed === 0;
  const hasTunes = tunes.length > 0;
  const isNothing = !isEmpty && book.data !== undefined && !hasTunes;
  return {
    failure,
    notesProblem: notesFault(query, failure),
    isSearching: Boolean(query.words ?? query.notes) || countConditions(query) > 0,
    isEmpty,
    /** Nothing is as near to the words as is asked; these come next. */
    isNear: book.data?.pages[0]?.isNear ?? false,
    what: hasTunes && failure === undefined ? ('list' as const) : isNothing ? ('nothing' as const) : null,
    tags: facets?.tags.map(({ value }) => value) ?? [],
    count: count?.tunes ?? 0,
    total: facets?.tunes ?? 0,
  };
}

type Done = NonNullable<ReturnType<typeof useBulkDeeds>['done']>;

/** What was done last, with its undo. */
function DoneLine({
  done,
  onUndo,
}: {
  readonly done: Done | null;
  readonly onUndo: (undo: NonNullable<Done['undo']>) => void;
}) {
  if (!done) return null;
  const { words, undo } = done;
  return (
    <p role="status" className="mb-2 flex items-center gap-3">
      {words}
      {undo !== null && (
        <Button look="link" aria-keyshortcuts="Control+Z" onClick={() => onUndo(undo)}>
          Undo
        </Button>
      )}
    </p>
  );
}

interface BookStateProps {
  readonly isLoading: boolean;
  readonly failure: Failure | undefined;
  readonly onRetry: () => void;
}

/** Said in place of the list while there is none. */
function BookState({ isLoading, failure, onRetry }: BookStateProps) {
  if (isLoading) return <p className="py-8 text-muted">Opening the book …</p>;
  if (failure === undefined) return null;
  return (
    <div className="py-6">
      <NotRead words={`The book cannot be shown. ${failureWords(failure)}`} onRetry={onRetry} />
    </div>
  );
}

interface NothingFoundProps {
  readonly query: BookQuery;
  readonly isSearching: boolean;
  readonly onShowAll: () => void;
}

/** Why there is nothing to show. */
function NothingFound({ query, isSearching, onShowAll }: NothingFoundProps) {
  const why = isSearching ? 'No tune matches.' : 'Every tune has been removed from the book; the filter shows them.';
  return (
    <div className="py-8">
      <p className="mb-2">{query.removed === 'yes' ? 'No tunes have been removed.' : why}</p>
      {isSearching && <Button onClick={onShowAll}>Show the whole book</Button>}
    </div>
  );
}

function NotDoneLine({ failure }: { readonly failure: Failure | undefined }) {
  if (failure === undefined) return null;
  return <Alert className="mb-2">Not done. {failureWords(failure)}</Alert>;
}

/** What is wrong with the first notes that are asked for, where that is what the server refuses. */
function notesFault({ notes }: BookQuery, failure: Failure | undefined): string | null {
  if (!notes || failure?.code !== 'bad-request') return null;
  const { details } = failure;
  const first = Array.isArray(details) ? (details[0] as { path?: string; message?: string } | undefined) : undefined;
  return first?.path === 'notes' && first.message ? first.message : null;
}
