import { useLayoutEffect, useRef, useState } from 'react';
import type { ScaleStop } from '#core/ground';
import { type Place, PLACES } from '#core/tune';
import { writtenPitch } from '#words/pitch';

interface RulersProps {
  readonly scale: readonly ScaleStop[];
  readonly leftHanded: boolean;
}

const LABEL_WIDTH = 74;
/** A ruler is as long as there is room for: on a phone its figures still stand apart. */
const MIN_RULER = 250;
const MAX_RULER = 900;
/** Room that the figure between two notes needs, beside theirs. */
const GAP_ROOM = 52;
/** Half a figure past the last note. */
const END_WIDTH = 16;
const ROW_HEIGHT = 82;
/** Past the last note, in mm. */
const ROOM_MM = 8;
const SIGNS = { low: '−', plain: '', high: '+' } as const;

/** Each string as a ruler from the nut: where each finger of the key lies in millimetres, and how far from the one before. */
export function Rulers({ scale, leftHanded }: RulersProps) {
  const box = useRef<HTMLDivElement>(null);
  const [ruler, setRuler] = useState(MIN_RULER);
  useLayoutEffect(() => {
    const element = box.current!;
    const measure = () =>
      setRuler(Math.min(MAX_RULER, Math.max(MIN_RULER, element.clientWidth - LABEL_WIDTH - END_WIDTH)));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const farthest = Math.max(60, ...scale.map(({ mm }) => mm)) + ROOM_MM;
  const x = (mm: number) => {
    const along = (mm / farthest) * ruler;
    return leftHanded ? ruler - along : LABEL_WIDTH + along;
  };
  const width = LABEL_WIDTH + ruler + END_WIDTH;
  // The highest string on top, as in the arm lane.
  const rows = [...PLACES].reverse();
  return (
    <div
      ref={box}
      className="overflow-x-auto"
      tabIndex={0}
      role="region"
      aria-label="Finger places in millimetres from the nut"
    >
      <svg
        width={width}
        height={ROW_HEIGHT * 4 + 26}
        viewBox={`0 0 ${width} ${ROW_HEIGHT * 4 + 26}`}
        role="img"
        aria-label={spoken(scale)}
      >
        {rows.map((place, row) => (
          <Ruler
            key={place}
            place={place}
            stops={scale.filter((stop) => stop.place === place)}
            y={row * ROW_HEIGHT + 44}
            x={x}
            labelX={leftHanded ? ruler + LABEL_WIDTH - 4 : 4}
            leftHanded={leftHanded}
          />
        ))}
        <text x={x(0)} y={ROW_HEIGHT * 4 + 16} textAnchor="middle" fontSize="12" fill="var(--muted)">
          nut
        </text>
        <text
          x={leftHanded ? 4 : width - 8}
          y={ROW_HEIGHT * 4 + 16}
          textAnchor={leftHanded ? 'start' : 'end'}
          fontSize="12"
          fill="var(--muted)"
        >
          {leftHanded ? '← toward the bridge' : 'toward the bridge →'}
        </text>
      </svg>
    </div>
  );
}

interface RulerProps {
  readonly place: Place;
  readonly stops: readonly ScaleStop[];
  readonly y: number;
  readonly x: (mm: number) => number;
  readonly labelX: number;
  readonly leftHanded: boolean;
}

function Ruler({ place, stops, y, x, labelX, leftHanded }: RulerProps) {
  const ends = [x(0), x(Math.max(0, ...stops.map(({ mm }) => mm)))];
  return (
    <g>
      <text
        x={labelX}
        y={y + 5}
        textAnchor={leftHanded ? 'end' : 'start'}
        fontSize="15"
        fontWeight="700"
        fill="var(--ink)"
      >
        {place} string
      </text>
      <path d={`M${ends[0]} ${y}H${ends[1]}`} stroke="var(--walnut)" strokeWidth="1.5" />
      {stops.map((stop, i) => {
        const before = stops[i - 1];
        const isOdd = stop.lean !== 'plain' || stop.extension !== null;
        return (
          <g key={stop.semitones}>
            <path
              d={`M${x(stop.mm)} ${y - 7}V${y + 7}`}
              stroke={isOdd ? 'var(--weld)' : 'var(--ink)'}
              strokeWidth={isOdd ? 2.5 : 1.5}
            />
            <text x={x(stop.mm)} y={y - 24} textAnchor="middle" fontSize="15" fontWeight="700" fill="var(--ink)">
              {writtenPitch(stop.pitch).replace(/\d$/, '')}
            </text>
            <text
              x={x(stop.mm)}
              y={y - 11}
              textAnchor="middle"
              fontSize="12"
              fill={isOdd ? 'var(--weld-ink)' : 'var(--muted)'}
            >
              {stop.finger}
              {SIGNS[stop.lean]}
            </text>
            <text x={x(stop.mm)} y={y + 20} textAnchor="middle" fontSize="12" fill="var(--muted)">
              {stop.mm.toFixed(0)}
            </text>
            {before && (
              <text x={(x(stop.mm) + x(before.mm)) / 2} y={y + 20} textAnchor="middle" fontSize="12" fill="var(--woad)">
                {Math.abs(x(stop.mm) - x(before.mm)) >= GAP_ROOM ? `↔${(stop.mm - before.mm).toFixed(0)}` : ''}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

function spoken(scale: readonly ScaleStop[]): string {
  return PLACES.map(
    (place) =>
      `${place} string: ${scale
        .filter((stop) => stop.place === place)
        .map(
          ({ pitch, finger, lean, mm }) =>
            `${writtenPitch(pitch)} ${finger === 0 ? 'open' : `${lean === 'plain' ? '' : `${lean} `}finger ${finger} at ${mm.toFixed(0)} mm`}`,
        )
        .join(', ')}`,
  ).join('. ');
}
