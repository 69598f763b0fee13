import { memo } from 'react';
import type { LineGeometry } from './geometry';

/** A note of a take as it is drawn under its notehead. */
export interface TakeMark {
  readonly heard: boolean;
  /** How late it began, as a share of its own length; null: not known. */
  readonly off: number | null;
  /** Share of the note, and cents from what was meant. */
  readonly curve: readonly (readonly [share: number, cents: number])[];
  /** 0 to 1 of the loudest. */
  readonly level: number;
  /** Something was told of it. */
  readonly isTold: boolean;
}

const ONSETS = 16;
const PITCH = 30;
const LEVEL = 14;
const GAP = 5;
/** Between the lanes of the plan and the take. */
const ABOVE = 9;
/** Cents from the middle of the pitch track to its edge. */
const EDGE_CENTS = 40;
/** A beginning is drawn no farther off than this share of its note. */
const MOST_OFF = 0.45;

export const TAKE_HEIGHT = ABOVE + ONSETS + PITCH + LEVEL + 3 * GAP;

interface TakeTracksProps {
  readonly geometry: LineGeometry;
  readonly marks: ReadonlyMap<string, TakeMark>;
  readonly top: number;
}

/** A take under its line, on the same x: when notes began, their pitch against its target, and how loud they were. */
export const TakeTracks = memo(function TakeTracks({ geometry, marks, top }: TakeTracksProps) {
  const paths = { planned: '', played: '', told: '', unheard: '', pitch: '', off: '', level: '' };
  const middle = ONSETS + GAP + PITCH / 2;
  const floor = ONSETS + PITCH + LEVEL + 2 * GAP;
  geometry.notes.forEach(({ id, x }, i) => {
    const mark = marks.get(id);
    if (!mark) return;
    const next = geometry.notes[i + 1]?.x ?? geometry.endX;
    const width = next - x;
    paths.planned += `M${x} ${ONSETS - 5}V${ONSETS}`;
    if (!mark.heard) {
      paths.unheard += `M${x - 3} 4l6 6m0-6l-6 6`;
      return;
    }
    const at = x + Math.max(-MOST_OFF, Math.min(MOST_OFF, mark.off ?? 0)) * width;
    const tick = `M${at.toFixed(1)} 1V${ONSETS - 6}`;
    if (mark.isTold) paths.told += tick;
    else paths.played += tick;
    paths.level += `M${x} ${floor}V${(floor - mark.level * LEVEL).toFixed(1)}H${(x + 0.8 * width).toFixed(1)}V${floor}Z`;
    let pen = 'M';
    for (const [share, cents] of mark.curve) {
      const y = middle - (Math.max(-EDGE_CENTS, Math.min(EDGE_CENTS, cents)) / EDGE_CENTS) * (PITCH / 2);
      const point = `${pen}${(x + Math.min(1, share) * width).toFixed(1)} ${y.toFixed(1)}`;
      if (mark.isTold) paths.off += point;
      else paths.pitch += point;
      pen = 'L';
    }
  });
  const label = 'fill-muted text-mark';
  return (
    <g transform={`translate(0 ${top + ABOVE})`} aria-hidden data-lane="take">
      <rect x={0} y={ONSETS + GAP} width={geometry.endX} height={PITCH} fill="var(--band)" rx={2} />
      <path
        d={`M0 ${ONSETS}H${geometry.endX}M0 ${middle}H${geometry.endX}M0 ${floor}H${geometry.endX}`}
        stroke="var(--line)"
      />
      <path d={paths.planned} stroke="var(--soft)" strokeWidth="1.5" />
      <path d={paths.played} stroke="var(--ink)" strokeWidth="1.8" data-take-onsets />
      <path d={paths.told} stroke="var(--madder)" strokeWidth="2.6" data-take-told />
      <path d={paths.unheard} stroke="var(--muted)" strokeWidth="1.4" fill="none" />
      <path d={paths.pitch} stroke="var(--ink)" strokeWidth="1.5" fill="none" data-take-pitch />
      <path d={paths.off} stroke="var(--madder)" strokeWidth="1.8" fill="none" />
      <path d={paths.level} fill="var(--soft)" fillOpacity="0.55" />
      <text x={4} y={ONSETS - 6} className={label}>
        began
      </text>
      <text x={4} y={middle + 4} className={label}>
        pitch
      </text>
      <text x={4} y={floor - 3} className={label}>
        level
      </text>
    </g>
  );
});
