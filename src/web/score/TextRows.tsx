import { memo } from 'react';
import type { LaneSettings } from './Lanes';
import type { LineSigns } from './signs';

type RowName = 'finger' | 'string' | 'call' | 'letter';

/** A row under the staff; on paper, to be read from a stand, it is larger, and a call stands in two lines. */
interface Row {
  readonly name: RowName;
  readonly isLarge: boolean;
}

const HEIGHT = 15;
/** On paper 40 px of the drawing are the staff: calls in 14 points, letters of strings and fingers a little less. */
const LARGE = {
  finger: { height: 22, size: 19 },
  string: { height: 20, size: 18 },
  call: { height: 46, size: 24 },
  letter: { height: 22, size: 19 },
} as const;
/** A second note of a double stop, under the first one's finger. */
const BESIDE_SIZE = 15;
const SIZES = { finger: 'text-fine', string: 'text-mark', call: 'text-mark tracking-tight', letter: 'text-fine' };

export function rowsShown({ fingers, strings, calls, letters }: LaneSettings, isLarge: boolean): Row[] {
  const names: RowName[] = [
    ...(fingers ? ['finger' as const] : []),
    ...(strings ? ['string' as const] : []),
    ...(calls ? ['call' as const] : []),
    ...(letters ? ['letter' as const] : []),
  ];
  return names.map((name) => ({ name, isLarge }));
}

/** Baselines of rows under the first one's, and the room that they take below it. */
export function rowPlaces(rows: readonly Row[], hasBeside: boolean): { readonly ys: number[]; readonly below: number } {
  const ys: number[] = [];
  let y = 0;
  for (const [i, row] of rows.entries()) {
    if (i === 0) y = row.isLarge ? 4 : 0;
    else y += heightOf(rows[i - 1]!, hasBeside) + (row.isLarge ? LARGE[row.name].size - 14 : 0);
    ys.push(y);
  }
  const last = rows.at(-1);
  // Of the last row only what goes below its first baseline.
  return { ys, below: last ? y + (last.isLarge ? heightOf(last, hasBeside) - 15 : 0) : 0 };
}

function heightOf({ name, isLarge }: Row, hasBeside: boolean): number {
  if (!isLarge) return HEIGHT;
  return LARGE[name].height + (name === 'finger' && hasBeside ? BESIDE_SIZE : 0);
}

interface TextRowProps {
  readonly row: Row;
  readonly fingers: LineSigns['fingers'];
  readonly y: number;
}

/** Fingers, strings, calls or letters: they change with notes and tunings, not with links, so most edits leave them alone. */
export const TextRow = memo(
  function TextRow({ row: { name, isLarge }, fingers, y }: TextRowProps) {
    return (
      <g data-sign={`${name}s`} aria-hidden fontSize={isLarge ? LARGE[name].size : undefined}>
        {fingers.map((shown) => (
          <text
            key={shown.id}
            x={shown.x}
            y={y}
            textAnchor="middle"
            className={isLarge ? 'fill-ink' : `fill-ink ${SIZES[name]}`}
          >
            <Shown shown={shown} name={name} isLarge={isLarge} />
          </text>
        ))}
      </g>
    );
  },
  (before, after) =>
    before.y === after.y &&
    before.row.name === after.row.name &&
    before.row.isLarge === after.row.isLarge &&
    before.fingers.length === after.fingers.length &&
    before.fingers.every((shown, i) => sameText(before.row.name, shown, after.fingers[i]!)),
);

type ShownFinger = LineSigns['fingers'][number];

function sameText(name: RowName, a: ShownFinger, b: ShownFinger): boolean {
  return a.x === b.x && a[name] === b[name] && a.position === b.position && a.beside === b.beside;
}

function Shown({
  shown,
  name,
  isLarge,
}: {
  readonly shown: ShownFinger;
  readonly name: RowName;
  readonly isLarge: boolean;
}) {
  const { x, position, finger, beside, call } = shown;
  if (name === 'call' && isLarge) {
    // The string over the finger: narrow enough for three in a beat.
    const [string, digit] = call.split(':');
    return (
      <>
        {string}
        <tspan x={x} dy={LARGE.call.size - 2}>
          {digit}
        </tspan>
      </>
    );
  }
  if (name !== 'finger') return shown[name];
  return (
    <>
      {position === null ? finger : <Arrival position={position} finger={finger} />}
      {isLarge && beside !== '' && (
        <tspan x={x} dy={BESIDE_SIZE} fontSize={BESIDE_SIZE}>
          {beside}
        </tspan>
      )}
    </>
  );
}

/** The position to which the hand comes, and the finger with which it does: in the other type, so that I is no 1. */
function Arrival({ position, finger }: { readonly position: string; readonly finger: string }) {
  return (
    <>
      <tspan className="font-serif font-bold">{position}</tspan>
      <tspan dx="2.5">{finger}</tspan>
    </>
  );
}
