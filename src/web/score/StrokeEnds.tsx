import { useMemo, useState } from 'react';
import type { NoteState } from '#core/noteStates';
import { MAX_WISH, MIN_WISH } from '#core/travel';
import type { LineGeometry } from './geometry';
import { bowLane, hairAt, type HairScale, hairY, LANES, type StrokeEnd } from './lanePaths';

/** Pull a stroke's end by this much and it is a wish; less is a press. */
const MIN_PULL = 3;

interface StrokeEndsProps {
  readonly geometry: LineGeometry;
  readonly states: ReadonlyMap<string, NoteState>;
  readonly hair: HairScale;
  /** Top of the bow lane. */
  readonly top: number;
  readonly onBowLength: (head: string, ratio: number) => void;
  readonly onPick: (id: string, extend: boolean) => void;
}

interface Pull {
  readonly end: StrokeEnd;
  readonly fromY: number;
  readonly y: number;
}

/** The ends of strokes in the bow lane, to be pulled longer or shorter; by keyboard the keys E and Q do the same. */
export function StrokeEnds({ geometry, states, hair, top, onBowLength, onPick }: StrokeEndsProps) {
  const { ends } = useMemo(() => bowLane(geometry, states, hair), [geometry, states, hair]);
  const [pull, setPull] = useState<Pull | null>(null);
  const { height } = LANES.bow;
  const wishOf = ({ end, y }: Pull) => {
    const state = states.get(end.head)!;
    const cm = (hairAt(y, hair, height) - state.strokeFromCm) * (state.bow === 'down' ? 1 : -1);
    return Math.round(100 * Math.min(MAX_WISH, Math.max(MIN_WISH, cm / Math.max(0.1, state.ownCm)))) / 100;
  };
  const from = pull && geometry.notes.find(({ id }) => id === pull.end.head);
  return (
    <g transform={`translate(0 ${top})`} aria-hidden data-layer="stroke-ends">
      {ends.map((end) => (
        <circle
          key={`${end.head} ${end.x}`}
          cx={end.x - 4}
          cy={end.y}
          r={6}
          className="cursor-ns-resize touch-none fill-transparent"
          data-stroke-end={end.head}
          onPointerDown={(event) => {
            event.preventDefault();
            event.stopPropagation();
            event.currentTarget.setPointerCapture(event.pointerId);
            setPull({ end, fromY: event.clientY, y: end.y });
          }}
          onPointerMove={(event) => {
            if (!pull) return;
            const svg = event.currentTarget.ownerSVGElement!;
            const scale = svg.getBoundingClientRect().width / geometry.width;
            setPull({ ...pull, y: pull.end.y + (event.clientY - pull.fromY) / scale });
          }}
          onPointerUp={() => {
            if (pull && Math.abs(pull.y - pull.end.y) >= MIN_PULL) onBowLength(pull.end.head, wishOf(pull));
            else if (pull) onPick(pull.end.head, false);
            setPull(null);
          }}
          onPointerCancel={() => setPull(null)}
        />
      ))}
      {pull && from && (
        <g pointerEvents="none">
          <path
            d={`M${from.x} ${hairY(states.get(pull.end.head)!.strokeFromCm, hair, height)}L${pull.end.x} ${Math.min(height, Math.max(0, pull.y))}`}
            stroke="var(--woad)"
            strokeWidth="2"
          />
          <text
            x={pull.end.x + 6}
            y={Math.min(height - 2, Math.max(10, pull.y))}
            className="fill-woad text-mark font-bold"
          >
            × {wishOf(pull).toFixed(2)}
          </text>
        </g>
      )}
    </g>
  );
}
