import { useState } from 'react';
import type { NoteState } from '#core/noteStates';
import { PLACES } from '#core/tune';
import type { LineGeometry } from './geometry';
import { angleY, LANES, noteEnds } from './lanePaths';

/** Sides painted on notes; null takes the drone off. */
export type PaintedDrones = ReadonlyMap<string, 'lower' | 'upper' | null>;

interface ArmPaintProps {
  readonly geometry: LineGeometry;
  readonly states: ReadonlyMap<string, NoteState>;
  readonly neighbourAngle: number;
  /** Top of the arm lane. */
  readonly top: number;
  readonly onPaint: (drones: PaintedDrones) => void;
}

interface Stroke {
  readonly pair: number;
  readonly from: number;
  readonly to: number;
}

/** Half the height of the strip between two bands that is painted on. */
const HALF_STRIP = 4;
/** Notes begin a little left of their heads. */
const HEAD_ROOM = 8;

/**
 * Strips between the bands of the arm lane: pressed or drawn along, the notes there sound with the open string on the
 * other side of the strip; where all of them do already, it is taken off. The edit menu does the same by keyboard.
 */
export function ArmPaint({ geometry, states, neighbourAngle, top, onPaint }: ArmPaintProps) {
  const [stroke, setStroke] = useState<Stroke | null>(null);
  const { height } = LANES.arm;
  const ends = noteEnds(geometry);
  const xOf = (event: React.PointerEvent<SVGRectElement>) => {
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    return ((event.clientX - box.left) * geometry.width) / box.width;
  };
  const paint = ({ pair, from, to }: Stroke) => {
    const [left, right] = [Math.min(from, to), Math.max(from, to)];
    const hit = geometry.notes.flatMap(({ id, x }) => {
      const state = states.get(id);
      const isIn = x - HEAD_ROOM <= right && (ends.get(id) ?? x) - HEAD_ROOM > left;
      const at = state ? PLACES.indexOf(state.place) : -1;
      const side = at === pair ? ('upper' as const) : at === pair + 1 ? ('lower' as const) : null;
      if (!isIn || !state?.reachable || state.continues || side === null) return [];
      return [{ id, side, has: state.drone === PLACES[side === 'upper' ? at + 1 : at - 1] }];
    });
    if (hit.length === 0) return;
    const isOff = hit.every(({ has }) => has);
    onPaint(new Map(hit.map(({ id, side }) => [id, isOff ? null : side])));
  };
  return (
    <g transform={`translate(0 ${top})`} aria-hidden data-layer="arm-paint">
      {PLACES.slice(1).map((upper, pair) => {
        const y = angleY((pair - 1) * neighbourAngle, neighbourAngle, height);
        return (
          <rect
            key={upper}
            data-pair={`${PLACES[pair]}${upper}`}
            x={0}
            y={y - HALF_STRIP}
            width={geometry.width}
            height={2 * HALF_STRIP}
            className="cursor-crosshair touch-none fill-transparent hover:fill-woad/15"
            onPointerDown={(event) => {
              event.preventDefault();
              event.stopPropagation();
              event.currentTarget.setPointerCapture(event.pointerId);
              const x = xOf(event);
              setStroke({ pair, from: x, to: x });
            }}
            onPointerMove={(event) => stroke && setStroke({ ...stroke, to: xOf(event) })}
            onPointerUp={() => {
              if (stroke) paint(stroke);
              setStroke(null);
            }}
            onPointerCancel={() => setStroke(null)}
          />
        );
      })}
      {stroke && Math.abs(stroke.to - stroke.from) > 1 && (
        <path
          d={`M${stroke.from} ${angleY((stroke.pair - 1) * neighbourAngle, neighbourAngle, height)}H${stroke.to}`}
          stroke="var(--woad)"
          strokeWidth="5"
          strokeOpacity="0.6"
          pointerEvents="none"
        />
      )}
    </g>
  );
}
