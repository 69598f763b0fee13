import { useVirtualizer } from '@tanstack/react-virtual';
import { Check, CircleAlert, MoveDown, MoveUp } from 'lucide-react';
import { type KeyboardEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { BookSort } from '#contract/book';
import type { TuneSummary } from '#contract/tunes';
import { parseFraction } from '#core/base';
import { counted } from '#words/plural';
import { skillWords } from '#words/readiness';
import { beatWords } from '#words/tempo';
import { selectPlayer, selectWords } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { CeilingMark } from './CeilingMark';
import { keySigns } from './keySigns';
import { type Chosen, extended, isChosen, toggled } from './selection';
import { summaryVerdict } from './summaryVerdict';

interface Column {
  readonly id: BookSort;
  readonly header: string;
  readonly cell: (tune: TuneSummary) => ReactNode;
}

/** Columns in their order; each can be sorted by. */
const COLUMNS: readonly Column[] = [
  {
    id: 'title',
    header: 'Tune',
    cell: ({ id, title, tags }) => (
      <span className="flex min-w-0 flex-col">
        <Link
          to={`/tunes/${id}`}
          tabIndex={-1}
          className="line-clamp-2 font-serif text-section leading-tight font-bold break-words text-ink hover:text-woad hover:underline"
        >
          {title}
        </Link>
        {tags.length > 0 && <span className="truncate text-hint text-muted">{tags.join(' · ')}</span>}
      </span>
    ),
  },
  { id: 'type', header: 'Type', cell: ({ danceType }) => danceType ?? 'not set' },
  { id: 'key', header: 'Key', cell: ({ key }) => keySigns(key) },
  {
    id: 'tuning',
    header: 'Tuning',
    cell: ({ tuning }) => <span className="whitespace-nowrap">{keySigns(tuning)}</span>,
  },
  {
    id: 'bars',
    header: 'Form',
    cell: ({ form, bars }) => (
      <span className="line-clamp-2">
        {form}, <span className="whitespace-nowrap">{counted(bars, 'bar')}</span>
      </span>
    ),
  },
  { id: 'round', header: 'Verdict', cell: (tune) => <VerdictMark tune={tune} /> },
  {
    id: 'tempo',
    header: 'Holds up to',
    cell: (tune) =>
      tune.comesRound === null ? (
        <NotCounted tune={tune} />
      ) : (
        <CeilingMark tune={tune} beat={beatWords(parseFraction(tune.beat) ?? { n: 1, d: 4 })} />
      ),
  },
  { id: 'ready', header: 'New to you', cell: (tune) => <ReadyMark tune={tune} /> },
];

/** Columns that narrow pages leave out. */
const WIDE_ONLY = new Set<BookSort>(['key', 'tuning', 'bars', 'ready']);
const GRID =
  'grid items-center gap-x-4 grid-cols-[1.75rem_minmax(0,1fr)_minmax(0,7.5rem)] md:grid-cols-[1.75rem_minmax(8rem,1fr)_5rem_5.5rem_6.5rem_6.5rem_9rem_12.5rem_7rem] md:max-lg:grid-cols-[1.75rem_minmax(8rem,1fr)_5rem_9rem_11rem]';
const ROW_PX = 56;
/** Rows drawn above and below what is seen. */
const OVERSCAN = 12;
/** The next page is asked for so many rows before the end. */
const AHEAD = 30;
/** Cells whose place on a phone is under the title. */
const UNDER_TITLE = new Set<BookSort>(['type']);

interface BookTableProps {
  readonly tunes: readonly TuneSummary[];
  /** How many there are in all; undefined while they are counted. */
  readonly total: number | undefined;
  readonly sort: BookSort;
  readonly isDown: boolean;
  readonly chosen: Chosen;
  readonly hasMore: boolean;
  /** What is shown is the answer to an earlier question. */
  readonly isBusy: boolean;
  readonly onSort: (sort: BookSort) => void;
  readonly onChoose: (chosen: Chosen) => void;
  readonly onMore: () => void;
}

/** The tunes, a row each; only what is seen is drawn. Arrows walk, Space chooses, Enter opens. */
export function BookTable(props: BookTableProps) {
  const { tunes, total, sort, isDown, chosen, hasMore, isBusy, onSort, onChoose, onMore } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const [reached, setReached] = useState<{ readonly id: string; readonly index: number } | null>(null);
  const [anchor, setAnchor] = useState<string | null>(null);
  const navigate = useNavigate();
  // No compiler memoizes this component, so what it gives may change under it.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtualizer = useVirtualizer({
    count: tunes.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    getItemKey: (index) => tunes[index]!.id,
    overscan: OVERSCAN,
  });
  const shown = virtualizer.getVirtualItems();
  const last = shown[shown.length - 1]?.index ?? 0;
  useEffect(() => {
    if (hasMore && last >= tunes.length - AHEAD) onMore();
  }, [hasMore, last, tunes.length, onMore]);

  const ids = () => tunes.map(({ id }) => id);
  // The row reached keeps the keys when others come in before it; when it is gone, the one in its place has them.
  const place = tunes.findIndex(({ id }) => id === reached?.id);
  const active = place >= 0 ? place : Math.max(0, Math.min(tunes.length - 1, reached?.index ?? 0));
  const walkTo = (index: number, extend: boolean) => {
    const next = Math.max(0, Math.min(tunes.length - 1, index));
    const from = anchor ?? tunes[active]?.id;
    if (extend && from !== undefined) {
      setAnchor(from);
      onChoose(extended(chosen, from, tunes[next]!.id, ids()));
    } else setAnchor(null);
    if (tunes[next]) setReached({ id: tunes[next].id, index: next });
    virtualizer.scrollToIndex(next);
    requestAnimationFrame(() => scroller.current?.querySelector<HTMLElement>(`[data-row="${next}"]`)?.focus());
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? ROW_PX) / ROW_PX) - 1);
    const steps: Record<string, number> = {
      ArrowDown: active + 1,
      ArrowUp: active - 1,
      PageDown: active + page,
      PageUp: active - page,
      Home: 0,
      End: tunes.length - 1,
    };
    const target = steps[event.key];
    if (target !== undefined) {
      event.preventDefault();
      walkTo(target, event.shiftKey);
    } else if (event.key === ' ' && !(event.target as Element).closest('input')) {
      event.preventDefault();
      if (tunes[active]) onChoose(toggled(chosen, tunes[active].id, ids()));
    } else if (event.key === 'Enter' && !(event.target as Element).closest('a, input')) {
      if (tunes[active]) void navigate(`/tunes/${tunes[active].id}`);
    } else if (event.key === 'a' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      onChoose({ kind: 'all' });
    } else if (event.key === 'Escape' && (chosen.kind === 'all' || chosen.ids.size > 0)) {
      onChoose({ kind: 'some', ids: new Set() });
    }
  };
  return (
    <div
      role="table"
      aria-label="Tunes"
      aria-rowcount={(total ?? tunes.length) + 1}
      aria-busy={isBusy}
      className="flex min-h-0 flex-1 flex-col transition-opacity aria-busy:opacity-60"
    >
      <div role="rowgroup" className="border-b border-line pr-3 text-muted">
        <div role="row" aria-rowindex={1} className={GRID}>
          <span role="columnheader" className="grid place-items-center">
            <input
              type="checkbox"
              aria-label="Choose all"
              className="size-4 accent-woad"
              checked={chosen.kind === 'all'}
              ref={(box) => {
                if (box) box.indeterminate = chosen.kind === 'some' && chosen.ids.size > 0;
              }}
              onChange={({ target }) => onChoose(target.checked ? { kind: 'all' } : { kind: 'some', ids: new Set() })}
            />
          </span>
          {COLUMNS.map(({ id, header }) => {
            const isSorted = id === sort;
            return (
              <span
                key={id}
                role="columnheader"
                aria-sort={isSorted ? (isDown ? 'descending' : 'ascending') : 'none'}
                className={`py-1 font-medium ${WIDE_ONLY.has(id) ? 'max-lg:hidden' : ''} ${UNDER_TITLE.has(id) || id === 'tempo' ? 'max-md:hidden' : ''}`}
              >
                <button
                  type="button"
                  className="-ml-1 inline-flex min-h-6 items-center gap-1 rounded px-1 whitespace-nowrap hover:text-ink"
                  onClick={() => onSort(id)}
                >
                  {header}
                  {isSorted && !isDown && <MoveUp size={13} aria-hidden />}
                  {isSorted && isDown && <MoveDown size={13} aria-hidden />}
                </button>
              </span>
            );
          })}
        </div>
      </div>
      {/* The rows have the focus one at a time; the body only scrolls. */}
      <div
        ref={scroller}
        role="rowgroup"
        data-book-rows
        className="min-h-0 flex-1 overflow-y-auto"
        onKeyDown={onKeyDown}
      >
        <div role="presentation" className="relative" style={{ height: virtualizer.getTotalSize() }}>
          {shown.map(({ index, start, key }) => {
            const tune = tunes[index]!;
            const own = isChosen(chosen, tune.id);
            return (
              <div
                key={key}
                role="row"
                data-row={index}
                data-index={index}
                ref={virtualizer.measureElement}
                aria-rowindex={index + 2}
                aria-selected={own}
                aria-label={tune.title}
                tabIndex={index === active ? 0 : -1}
                onFocus={() => setReached({ id: tune.id, index })}
                className={`${GRID} absolute top-0 right-0 left-0 border-b border-line py-2 pr-3 -outline-offset-2 ${own ? 'bg-band' : 'hover:bg-surface'}`}
                style={{ transform: `translateY(${start}px)`, minHeight: ROW_PX }}
              >
                <span role="cell" className="grid place-items-center">
                  <input
                    type="checkbox"
                    tabIndex={-1}
                    aria-label={`Choose ${tune.title}`}
                    className="size-4 accent-woad"
                    checked={own}
                    onChange={({ nativeEvent }) => {
                      // Boxes change by a click, which tells of the key that is held.
                      const isStretch = (nativeEvent as MouseEvent).shiftKey && anchor !== null;
                      if (isStretch) onChoose(extended(chosen, anchor, tune.id, ids()));
                      else {
                        setAnchor(tune.id);
                        onChoose(toggled(chosen, tune.id, ids()));
                      }
                    }}
                  />
                </span>
                {COLUMNS.map(({ id, cell }) => (
                  <span
                    key={id}
                    role="cell"
                    className={`min-w-0 ${WIDE_ONLY.has(id) ? 'max-lg:hidden' : ''} ${UNDER_TITLE.has(id) ? 'text-small max-md:order-last max-md:col-start-2 max-md:text-muted md:text-control' : ''} ${id === 'tempo' ? 'max-md:order-last' : ''}`}
                  >
                    {cell(tune)}
                  </span>
                ))}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

/** What stands where figures are not known: they come, or why they do not. */
function NotCounted({ tune: { givenUp } }: { readonly tune: TuneSummary }) {
  if (givenUp === null) return <span className="text-muted">being checked</span>;
  return (
    <span className="line-clamp-2 text-madder" title={givenUp}>
      could not be checked
    </span>
  );
}

/** What of a tune was not shown clean yet: how many skills, and which. */
function ReadyMark({ tune: { id, missing } }: { readonly tune: TuneSummary }) {
  const words = useAppSelector(selectWords);
  if (missing === null) return <span className="text-muted">–</span>;
  if (missing.length === 0) return <span className="text-lichen-ink">nothing</span>;
  const names = missing.map((name) => skillWords(name, words)).join(', ');
  return (
    <Link to={`/tunes/${id}/practice#ready`} tabIndex={-1} title={names} className="hover:text-woad hover:underline">
      <span className="line-clamp-2 text-small leading-tight">
        {missing.length === 1 ? names : counted(missing.length, 'skill')}
        {missing.length > 1 && <span className="sr-only">: {names}</span>}
      </span>
    </Link>
  );
}

/** Both questions in few words, red where either is answered no. */
function VerdictMark({ tune }: { readonly tune: TuneSummary }) {
  const { learning } = useAppSelector(selectPlayer).schools;
  if (tune.comesRound === null) return <span className="text-muted">{tune.givenUp === null ? '…' : '–'}</span>;
  const { kind, words } = summaryVerdict(tune, learning === 'both-directions');
  const Icon = kind === 'good' ? Check : CircleAlert;
  return (
    <span className={`flex min-w-0 items-center gap-1.5 ${kind === 'good' ? 'text-lichen-ink' : 'text-madder'}`}>
      <Icon size={15} className="shrink-0" aria-hidden />
      <span className="line-clamp-2">{words}</span>
    </span>
  );
}
