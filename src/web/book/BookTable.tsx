import { createColumnHelper, tableFeatures, useTable } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Check, CircleAlert, MoveDown, MoveUp } from 'lucide-react';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { parseFraction } from '#core/base';
import type { BookSort } from '#contract/book';
import type { TuneSummary } from '#contract/tunes';
import { beatWords } from '#words/tempo';
import { CeilingMark } from './CeilingMark';
import { keySigns } from './keySigns';
import { type Chosen, extended, isChosen, toggled } from './selection';

const features = tableFeatures({});
const column = createColumnHelper<typeof features, TuneSummary>();

const columns = column.columns([
  column.accessor('title', {
    header: 'Tune',
    cell: ({ row: { original } }) => (
      <span className="flex min-w-0 flex-col">
        <Link
          to={`/tunes/${original.id}`}
          tabIndex={-1}
          className="line-clamp-2 font-serif text-[18px] leading-tight font-bold break-words text-ink hover:text-woad hover:underline"
        >
          {original.title}
        </Link>
        {original.tags.length > 0 && (
          <span className="truncate text-[13.5px] text-muted">{original.tags.join(' · ')}</span>
        )}
      </span>
    ),
  }),
  column.accessor((tune) => tune.danceType ?? '', {
    id: 'type',
    header: 'Type',
    cell: ({ row: { original } }) => original.danceType ?? 'not given',
  }),
  column.accessor('key', { header: 'Key', cell: ({ getValue }) => keySigns(getValue()) }),
  column.accessor('tuning', {
    header: 'Tuning',
    cell: ({ getValue }) => <span className="whitespace-nowrap">{keySigns(getValue())}</span>,
  }),
  column.accessor('bars', {
    header: 'Form',
    cell: ({ row: { original } }) => (
      <span className="line-clamp-2">
        {original.form}, <span className="whitespace-nowrap">{original.bars} bars</span>
      </span>
    ),
  }),
  column.accessor('comesRound', {
    id: 'round',
    header: 'Comes round',
    cell: ({ row: { original } }) => <RoundMark tune={original} />,
  }),
  column.accessor('ceilingBpm', {
    id: 'tempo',
    header: 'Stands to',
    cell: ({ row: { original } }) =>
      original.comesRound === null ? (
        <NotCounted tune={original} />
      ) : (
        <CeilingMark tune={original} beat={beatWords(parseFraction(original.beat) ?? { n: 1, d: 4 })} />
      ),
  }),
]);

/** Columns that narrow pages leave out. */
const WIDE_ONLY = new Set(['key', 'tuning', 'bars']);
const GRID =
  'grid items-center gap-x-4 grid-cols-[1.75rem_minmax(0,1fr)_minmax(0,7.5rem)] md:grid-cols-[1.75rem_minmax(8rem,1fr)_5.5rem_6.5rem_7.5rem_7.5rem_9rem_11.5rem] md:max-lg:grid-cols-[1.75rem_minmax(8rem,1fr)_5rem_9rem_11rem]';
const ROW_PX = 56;
/** Rows drawn above and below what is seen. */
const OVERSCAN = 12;
/** The next page is asked for so many rows before the end. */
const AHEAD = 30;
/** Cells whose place on a phone is under the title. */
const UNDER_TITLE = new Set(['type']);

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
  const [active, setActive] = useState(0);
  const [anchor, setAnchor] = useState<string | null>(null);
  const navigate = useNavigate();
  const table = useTable({ features, columns, data: tunes as TuneSummary[] });
  const rows = table.getRowModel().rows;
  // No compiler memoizes this component, so what it gives may change under it.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtualizer = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    getItemKey: (index) => rows[index]!.original.id,
    overscan: OVERSCAN,
  });
  const shown = virtualizer.getVirtualItems();
  const last = shown[shown.length - 1]?.index ?? 0;
  useEffect(() => {
    if (hasMore && last >= rows.length - AHEAD) onMore();
  }, [hasMore, last, rows.length, onMore]);

  const ids = () => tunes.map(({ id }) => id);
  const walkTo = (index: number, extend: boolean) => {
    const next = Math.max(0, Math.min(rows.length - 1, index));
    const from = anchor ?? tunes[active]?.id;
    if (extend && from !== undefined) {
      setAnchor(from);
      onChoose(extended(chosen, from, tunes[next]!.id, ids()));
    } else setAnchor(null);
    setActive(next);
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
      End: rows.length - 1,
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
  const [headers] = table.getHeaderGroups();
  const current = Math.min(active, Math.max(0, rows.length - 1));
  return (
    <div
      role="table"
      aria-label="Tunes"
      aria-rowcount={(total ?? rows.length) + 1}
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
          {headers!.headers.map((header) => {
            const isSorted = header.id === sort;
            return (
              <span
                key={header.id}
                role="columnheader"
                aria-sort={isSorted ? (isDown ? 'descending' : 'ascending') : 'none'}
                className={`py-1 font-medium ${WIDE_ONLY.has(header.id) ? 'max-lg:hidden' : ''} ${UNDER_TITLE.has(header.id) || header.id === 'tempo' ? 'max-md:hidden' : ''}`}
              >
                <button
                  type="button"
                  className="-ml-1 inline-flex min-h-6 items-center gap-1 rounded px-1 whitespace-nowrap hover:text-ink"
                  onClick={() => onSort(header.id as BookSort)}
                >
                  <table.FlexRender header={header} />
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
            const row = rows[index]!;
            const own = isChosen(chosen, row.original.id);
            return (
              <div
                key={key}
                role="row"
                data-row={index}
                data-index={index}
                ref={virtualizer.measureElement}
                aria-rowindex={index + 2}
                aria-selected={own}
                aria-label={row.original.title}
                tabIndex={index === current ? 0 : -1}
                onFocus={() => setActive(index)}
                className={`${GRID} absolute top-0 right-0 left-0 border-b border-line py-2 pr-3 -outline-offset-2 ${own ? 'bg-band' : 'hover:bg-surface'}`}
                style={{ transform: `translateY(${start}px)`, minHeight: ROW_PX }}
              >
                <span role="cell" className="grid place-items-center">
                  <input
                    type="checkbox"
                    tabIndex={-1}
                    aria-label={`Choose ${row.original.title}`}
                    className="size-4 accent-woad"
                    checked={own}
                    onChange={({ nativeEvent }) => {
                      // Boxes change by a click, which tells of the key that is held.
                      const isStretch = (nativeEvent as MouseEvent).shiftKey && anchor !== null;
                      if (isStretch) onChoose(extended(chosen, anchor, row.original.id, ids()));
                      else {
                        setAnchor(row.original.id);
                        onChoose(toggled(chosen, row.original.id, ids()));
                      }
                    }}
                  />
                </span>
                {row.getAllCells().map((cell) => (
                  <span
                    key={cell.id}
                    role="cell"
                    className={`min-w-0 ${WIDE_ONLY.has(cell.column.id) ? 'max-lg:hidden' : ''} ${UNDER_TITLE.has(cell.column.id) ? 'text-[14px] max-md:order-last max-md:col-start-2 max-md:text-muted md:text-[15px]' : ''} ${cell.column.id === 'tempo' ? 'max-md:order-last' : ''}`}
                  >
                    <table.FlexRender cell={cell} />
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
  if (givenUp === null) return <span className="text-muted">being counted</span>;
  return (
    <span className="line-clamp-2 text-madder" title={givenUp}>
      could not be counted
    </span>
  );
}

function RoundMark({ tune }: { readonly tune: TuneSummary }) {
  if (tune.comesRound === null) return <span className="text-muted">{tune.givenUp === null ? '…' : '–'}</span>;
  if (tune.comesRound)
    return (
      <span className="flex items-center gap-1.5 whitespace-nowrap text-lichen-ink">
        <Check size={15} aria-hidden /> comes round
      </span>
    );
  const parts = tune.flippedParts.join(', ');
  return (
    <span className="flex min-w-0 items-center gap-1.5 text-madder">
      <CircleAlert size={15} className="shrink-0" aria-hidden />
      <span className="line-clamp-2">
        {parts === '' ? 'flips when begun again' : `${parts} ${tune.flippedParts.length > 1 ? 'flip' : 'flips'}`}
      </span>
    </span>
  );
}
