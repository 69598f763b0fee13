import type { ScaleStop } from '#core/ground';
import { type Place, PLACES } from '#core/tune';
import { writtenPitch } from '#words/pitch';

interface RulersProps {
  readonly scale: readonly ScaleStop[];
  readonly leftHanded: boolean;
}

const LABEL_WIDTH = 74;
const RULER_WIDTH = 640;
const ROW_HEIGHT = 82;
/** Past the last note, in mm. */
const ROOM_MM = 8;
const SIGNS = { low: '−', plain: '', high: '+' } as const;

/** Each string as a ruler from the nut: where each finger of the key lies in millimetres, and how far from the one before. */
export function Rulers({ scale, leftHanded }: RulersProps) {
  const farthest = Math.max(60, ...scale.map(({ mm }) => mm)) + ROOM_MM;
  const x = (mm: number) => {
    const along = (mm / farthest) * RULER_WIDTH;
    return leftHanded ? RULER_WIDTH - along : LABEL_WIDTH + along;
  };
  const width = LABEL_WIDTH + RULER_WIDTH + 16;
  // The highest string on top, as in the arm lane.
  const rows = [...PLACES].reverse();
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Finger places in millimetres from the nut">
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
  readonly leftHanded: boolean;
}

function Ruler({ place, stops, y, x, leftHanded }: RulerProps) {
  const ends = [x(0), x(Math.max(0, ...stops.map(({ mm }) => mm)))];
  return (
    <g>
      <text
        x={leftHanded ? RULER_WIDTH + LABEL_WIDTH - 4 : 4}
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
                {stop.mm - before.mm >= 14 ? `↔${(stop.mm - before.mm).toFixed(0)}` : ''}
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
