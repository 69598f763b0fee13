import type { LineGeometry } from './geometry';

/** Where the next note goes, as the score shows it. */
export interface CaretSpot {
  /** The event after which it goes. */
  readonly id: string;
  readonly overwrite: boolean;
  /** Height of the pencil in letter names from C0, where notes are put on the staff. */
  readonly pencil: number | null;
}

/** Letter names from C0 to the staff's top line, F5. */
const TOP_LINE = 38;
const HALF_SPACE = 5;
/** Ledger lines begin a whole step beyond the staff. */
const BOTTOM_LINE = TOP_LINE - 8;

/** x of the gap behind an event; null where the line does not hold it. */
export function caretX(geometry: LineGeometry, id: string): number | null {
  const xs = [...geometry.notes, ...geometry.rests].map(({ x }) => x).sort((a, b) => a - b);
  const note = geometry.notes.find((box) => box.id === id);
  const rest = geometry.rests.find((box) => box.id === id);
  const bar = geometry.bars.find((box) => box.id === id);
  if (bar) return bar.contentX - 9;
  const at = note?.x ?? rest?.x;
  if (at === undefined) return null;
  const right = (note?.headRight ?? at + 6) + 7;
  const next = xs.find((x) => x > at + 1);
  return next === undefined ? right : Math.min(right, (at + next) / 2 + 2);
}

/** Height on the drawing, in letter names from C0, to the nearest line or space. */
export function stepAt(geometry: LineGeometry, y: number): number {
  return TOP_LINE - Math.round((y - geometry.staffTop) / HALF_SPACE);
}

/** A bar over the staff behind the caret's event; with it the pencil's note where there is one. */
export function EntryCaret({ geometry, caret }: { readonly geometry: LineGeometry; readonly caret: CaretSpot }) {
  const x = caretX(geometry, caret.id);
  if (x === null) return null;
  const { staffTop, staffBottom } = geometry;
  return (
    <g data-caret={caret.id} aria-hidden>
      {caret.overwrite && (
        <rect
          x={x}
          y={staffTop - 8}
          width={16}
          height={staffBottom - staffTop + 16}
          fill="var(--woad)"
          opacity="0.16"
        />
      )}
      <path
        d={`M${x - 4} ${staffTop - 12}h8M${x} ${staffTop - 12}V${staffBottom + 12}M${x - 4} ${staffBottom + 12}h8`}
        stroke="var(--woad)"
        strokeWidth="2"
        fill="none"
      />
      {caret.pencil !== null && <Pencil x={x + 13} step={caret.pencil} staffTop={staffTop} />}
    </g>
  );
}

function Pencil({ x, step, staffTop }: { readonly x: number; readonly step: number; readonly staffTop: number }) {
  const y = (at: number) => staffTop + (TOP_LINE - at) * HALF_SPACE;
  const ledgers: number[] = [];
  for (let at = TOP_LINE + 2; at <= step; at += 2) ledgers.push(at);
  for (let at = BOTTOM_LINE - 2; at >= step; at -= 2) ledgers.push(at);
  return (
    <g data-pencil={step}>
      {ledgers.map((at) => (
        <path key={at} d={`M${x - 10} ${y(at)}h20`} stroke="var(--woad)" strokeWidth="1.2" />
      ))}
      <ellipse
        cx={x}
        cy={y(step)}
        rx="6"
        ry="4.4"
        transform={`rotate(-18 ${x} ${y(step)})`}
        fill="var(--woad)"
        opacity="0.75"
      />
    </g>
  );
}
