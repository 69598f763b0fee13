import {
  type SortingState,
  createColumnHelper,
  createSortedRowModel,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { Check, CircleAlert, MoveDown, MoveUp } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { parseFraction } from '#core/base';
import type { TuneSummary } from '#contract/tunes';
import { beatWords } from '../bench/tempoWords';
import { CeilingMark } from './CeilingMark';

const features = tableFeatures({ rowSortingFeature, sortedRowModel: createSortedRowModel() });
const column = createColumnHelper<typeof features, TuneSummary>();

/** Room between ceiling and wish, in the share of the wish: what the tempo column sorts by. */
const room = ({ ceilingBpm, wishBpm }: TuneSummary) => (ceilingBpm ?? 1000) / wishBpm;
const signs = (text: string) => text.replace(/([A-G])#/g, '$1♯').replace(/([A-G])b/g, '$1♭');

const columns = column.columns([
  column.accessor('title', {
    header: 'Tune',
    sortFn: sortFn_alphanumeric,
    cell: ({ row: { original } }) => (
      <Link
        to={`/tunes/${original.id}`}
        className="font-serif text-[18px] leading-tight font-bold text-ink hover:text-woad hover:underline"
      >
        {original.title}
      </Link>
    ),
  }),
  column.accessor((tune) => tune.danceType ?? '', {
    id: 'type',
    header: 'Type',
    sortFn: sortFn_alphanumeric,
    cell: ({ row: { original } }) => original.danceType ?? 'not given',
  }),
  column.accessor('key', { header: 'Key', sortFn: sortFn_alphanumeric, cell: ({ getValue }) => signs(getValue()) }),
  column.accessor('tuning', {
    header: 'Tuning',
    sortFn: sortFn_alphanumeric,
    cell: ({ getValue }) => <span className="whitespace-nowrap">{signs(getValue())}</span>,
  }),
  column.accessor('bars', {
    header: 'Form',
    sortFn: sortFn_basic,
    cell: ({ row: { original } }) => (
      <>
        {original.form}, <span className="whitespace-nowrap">{original.bars} bars</span>
      </>
    ),
  }),
  column.accessor((tune) => Number(tune.comesRound), {
    id: 'round',
    header: 'Comes round',
    sortFn: sortFn_basic,
    cell: ({ row: { original } }) => <RoundMark tune={original} />,
  }),
  column.accessor(room, {
    id: 'tempo',
    header: 'Stands to',
    sortFn: sortFn_basic,
    cell: ({ row: { original } }) => (
      <CeilingMark tune={original} beat={beatWords(parseFraction(original.beat) ?? { n: 1, d: 4 })} />
    ),
  }),
]);

/** Columns that a phone leaves out. */
const WIDE_ONLY = new Set(['key', 'tuning', 'bars']);

/** All tunes, a row each; headings sort. */
export function BookTable({ tunes }: { readonly tunes: readonly TuneSummary[] }) {
  const [sorting, setSorting] = useState<SortingState>([{ id: 'title', desc: false }]);
  const table = useTable({
    features,
    columns,
    data: tunes as TuneSummary[],
    state: { sorting },
    onSortingChange: setSorting,
  });
  const [headers] = table.getHeaderGroups();
  return (
    <table className="w-full border-collapse text-left">
      <thead>
        <tr className="border-b border-line text-muted">
          {headers!.headers.map((header) => {
            const sorted = header.column.getIsSorted();
            return (
              <th
                key={header.id}
                scope="col"
                aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
                className={`py-1 pr-4 font-medium ${WIDE_ONLY.has(header.id) ? 'max-md:hidden' : ''}`}
              >
                <button
                  type="button"
                  className="-ml-1 inline-flex min-h-6 items-center gap-1 rounded px-1 whitespace-nowrap hover:text-ink"
                  onClick={header.column.getToggleSortingHandler()}
                >
                  <table.FlexRender header={header} />
                  {sorted === 'asc' && <MoveUp size={13} aria-hidden />}
                  {sorted === 'desc' && <MoveDown size={13} aria-hidden />}
                </button>
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>
        {table.getRowModel().rows.map((row) => (
          <tr key={row.id} className="border-b border-line hover:bg-surface">
            {row.getAllCells().map((cell) => (
              <td
                key={cell.id}
                className={`py-2.5 pr-4 align-middle ${WIDE_ONLY.has(cell.column.id) ? 'max-md:hidden' : ''}`}
              >
                <table.FlexRender cell={cell} />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function RoundMark({ tune }: { readonly tune: TuneSummary }) {
  if (tune.comesRound)
    return (
      <span className="flex items-center gap-1.5 whitespace-nowrap text-lichen-ink">
        <Check size={15} aria-hidden /> comes round
      </span>
    );
  const parts = tune.flippedParts.join(', ');
  return (
    <span className="flex items-center gap-1.5 text-madder">
      <CircleAlert size={15} aria-hidden />
      {parts === '' ? 'flips when begun again' : `${parts} ${tune.flippedParts.length > 1 ? 'flip' : 'flips'}`}
    </span>
  );
}
