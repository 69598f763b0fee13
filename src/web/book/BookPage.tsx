import { FileInput, FilePlus2, FolderDown } from 'lucide-react';
import { type DragEvent, Suspense, lazy, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { BookQuery, BulkDeed, TuneChoice } from '#contract/book';
import type { Tune } from '#core/tune';
import type { Failure } from '../api/answer';
import { failureWords } from '#words/failure';
import {
  useAddTunesMutation,
  useBookCountQuery,
  useBookInfiniteQuery,
  useChangeTunesMutation,
  useCountingQuery,
  useDeleteRemovedMutation,
  useFacetsQuery,
  useTakeBackChangeMutation,
} from '../api/bookApi';
import { Button } from '../ui/Button';
import { BookFilters } from './BookFilters';
import { BookTable } from './BookTable';
import { ChosenBar } from './ChosenBar';
import { EmptyBook } from './EmptyBook';
import { ViewsMenu } from './ViewsMenu';
import { countConditions, filterOf, readQuery, sortInForce, sortedBy, writeQuery } from './bookQuery';
import { deedWords, summaryWords } from '#words/book';
import type { ImportInput } from './importProtocol';
import { type Chosen, NOTHING, countChosen } from './selection';

const ImportSheet = lazy(() => import('./ImportSheet').then((sheet) => ({ default: sheet.ImportSheet })));
const FilesSheet = lazy(() => import('./FilesSheet').then((sheet) => ({ default: sheet.FilesSheet })));
const BeginSheet = lazy(() => import('./BeginSheet').then((sheet) => ({ default: sheet.BeginSheet })));

/** While figures are counted in the background the list looks again so often. */
const COUNTING_POLL_MS = 1500;

/** Pages that are looked at again while figures are counted. */
const MAX_REFETCHED = 5;

/** The whole book: searched, filtered and sorted by the server, and the way in and out for tunes. */
export function BookPage() {
  const [params, setParams] = useSearchParams();
  const query = useMemo(() => readQuery(params), [params]);
  const book = useBookInfiniteQuery(query);
  const { data: count } = useBookCountQuery(filterOf(query));
  const { data: facets, refetch: refetchFacets } = useFacetsQuery();
  const [isCounting, setCounting] = useState(false);
  const { data: counting } = useCountingQuery(undefined, { pollingInterval: isCounting ? COUNTING_POLL_MS : 0 });
  const [changeTunes, { isLoading: isChanging, error: changeError }] = useChangeTunesMutation();
  const [takeBack] = useTakeBackChangeMutation();
  const [emptyRemoved] = useDeleteRemovedMutation();
  const [addTunes, { error: beginError }] = useAddTunesMutation();
  const [sheet, setSheet] = useState<'begin' | 'files' | null>(null);
  const [importing, setImporting] = useState<{ input: ImportInput } | null>(null);
  const [isOver, setOver] = useState(false);
  const [chosen, setChosen] = useState<Chosen>(NOTHING);
  const [done, setDone] = useState<{ words: string; undo: string | null } | null>(null);
  const navigate = useNavigate();

  const show = useCallback(
    (next: BookQuery) => {
      setChosen(NOTHING);
      setParams(writeQuery(next), { replace: true });
    },
    [setParams],
  );
  const tunes = useMemo(() => book.data?.pages.flatMap((page) => page.tunes) ?? [], [book.data]);
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = book;
  const more = useCallback(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [hasNextPage, isFetchingNextPage, fetchNextPage]);

  // What is counted in the background changes rows: the list looks again until nothing is left.
  const { left = 0, givenUp = 0 } = counting ?? {};
  if (left > 0 !== isCounting) setCounting(left > 0);
  const { refetch } = book;
  const loadedPages = useRef(0);
  useEffect(() => {
    loadedPages.current = book.data?.pages.length ?? 0;
  });
  useEffect(() => {
    // Whenever it told of another number; far down a long list the rows are looked at again when they are next opened.
    if (counting !== undefined && loadedPages.current <= MAX_REFETCHED) void refetch();
  }, [counting, refetch]);

  useEffect(() => {
    document.title = 'Book · Morrin';
    const onPaste = (event: ClipboardEvent) => {
      if ((event.target as Element).closest('input, textarea')) return;
      const files = [...(event.clipboardData?.files ?? [])];
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (files.length > 0) setImporting((current) => current ?? { input: { kind: 'files', files } });
      else if (/^[XTK]:/m.test(text) || /^\s*<\?xml|^\s*<score-/.test(text))
        setImporting((current) => current ?? { input: { kind: 'text', text } });
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  }, []);

  const undo = useCallback(
    async (id: string) => {
      setDone(null);
      const answer = await takeBack(id);
      setDone({ words: answer.error ? failureWords(answer.error as Failure) : 'Taken back.', undo: null });
    },
    [takeBack],
  );
  useEffect(() => {
    const id = done?.undo;
    if (!id) return;
    const onKey = (event: globalThis.KeyboardEvent) => {
      if (event.key !== 'z' || !(event.ctrlKey || event.metaKey)) return;
      if ((event.target as Element).closest('input[type=text], textarea, [role=dialog]')) return;
      event.preventDefault();
      void undo(id);
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [done, undo]);

  const choice = (): TuneChoice => (chosen.kind === 'all' ? { filter: filterOf(query) } : { ids: [...chosen.ids] });
  const change = async (deed: BulkDeed) => {
    const answer = await changeTunes({ choice: choice(), deed });
    if (!answer.data) return;
    setDone({ words: deedWords(deed, answer.data.changed), undo: answer.data.changed > 0 ? answer.data.undo : null });
    if (deed.kind === 'remove' || deed.kind === 'bring-back') setChosen(NOTHING);
    void refetchFacets();
  };
  const begin = async (tune: Tune) => {
    setSheet(null);
    const added = await addTunes({ tunes: [{ tune }] });
    if (added.data) void navigate(`/tunes/${added.data[0]!.id}`);
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    const files = [...event.dataTransfer.files];
    const text = event.dataTransfer.getData('text/plain');
    if (files.length > 0) setImporting({ input: { kind: 'files', files } });
    else if (text) setImporting({ input: { kind: 'text', text } });
  };

  const failure = book.error as Failure | undefined;
  const notesProblem = query.notes && failure?.code === 'bad-request' ? notesWords(failure.details) : null;
  const isSearching = Boolean(query.words ?? query.notes) || countConditions(query) > 0;
  const isEmpty = facets !== undefined && facets.tunes === 0 && facets.removed === 0;
  const chosenCount = countChosen(chosen, count?.tunes ?? tunes.length);
  const isNear = book.data?.pages[0]?.isNear ?? false;

  return (
    <main
      className={`flex h-full min-h-0 flex-col overflow-y-auto px-5 pt-4 lg:px-8 ${isOver ? 'bg-band' : ''}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      <header className="mb-3 flex flex-wrap items-center justify-between gap-3">
        <div>
          <h1 className="text-[28px] leading-tight">Book</h1>
          <p className="text-muted" role="status">
            {summaryWords(count, isSearching)}
            {left > 0 && ` · counting figures, ${left} to go`}
            {givenUp > 0 &&
              ` · ${givenUp} could not be counted: ${givenUp === 1 ? 'it opens, plays and prints' : 'they open, play and print'} as ever`}
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          {!isEmpty && (
            <Button className="flex items-center gap-2" onClick={() => setSheet('files')}>
              <FolderDown size={17} aria-hidden /> Files and backup
            </Button>
          )}
          <Button className="flex items-center gap-2" onClick={() => setSheet('begin')}>
            <FilePlus2 size={17} aria-hidden /> Begin a tune
          </Button>
          <Button look="main" className="flex items-center gap-2" onClick={() => setImporting({ input: null })}>
            <FileInput size={17} aria-hidden /> Bring tunes in
          </Button>
        </div>
      </header>
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
          isBusy={isChanging}
          onDeed={(deed) => void change(deed)}
          onFiles={() => setSheet('files')}
          onClear={() => setChosen(NOTHING)}
        />
      )}
      {(changeError ?? beginError) !== undefined && (
        <p role="alert" className="mb-2 text-madder">
          Not done. {failureWords((changeError ?? beginError) as Failure)}
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
        <EmptyBook
          onImport={() => setImporting({ input: null })}
          onBegin={() => setSheet('begin')}
          onFiles={() => setSheet('files')}
        />
      )}
      {!isEmpty && book.data && tunes.length === 0 && (
        <div className="py-8">
          <p className="mb-2">
            {query.removed === 'yes'
              ? 'Nothing is out of the book.'
              : isSearching
                ? 'No tune is like that.'
                : 'Every tune is taken out of the book; the filter shows them.'}
          </p>
          {isSearching && <Button onClick={() => show({})}>Show the whole book</Button>}
        </div>
      )}
      {isNear && (
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
              hasMore={hasNextPage}
              isBusy={book.currentData === undefined}
              onSort={(sort) => show(sortedBy(query, sort, sortInForce(query)))}
              onChoose={setChosen}
              onMore={more}
            />
          </div>
          <footer className="flex flex-wrap items-center justify-between gap-x-4 border-t border-line py-2 text-[13.5px] text-muted">
            <p className="max-w-3xl">
              <b>Stands to</b>: the highest tempo at which every stroke and crossing has its time; the shaded stretch is
              the usual band. Arrows walk, Space chooses, Enter opens.
            </p>
            {query.removed === 'yes' && (
              <Button
                look="small"
                className="text-madder"
                onClick={() => {
                  if (window.confirm(`Delete ${count?.tunes ?? 0} tunes for good? This cannot be undone.`))
                    void emptyRemoved(facets?.asOf ?? '').then(() =>
                      setDone({ words: 'They are gone for good.', undo: null }),
                    );
                }}
              >
                Delete them for good
              </Button>
            )}
          </footer>
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
        {importing && <ImportSheet input={importing.input} onClose={() => setImporting(null)} />}
      </Suspense>
    </main>
  );
}

function notesWords(details: unknown): string | null {
  const first = Array.isArray(details) ? (details[0] as { path?: string; message?: string } | undefined) : undefined;
  return first?.path === 'notes' && first.message ? first.message : null;
}
