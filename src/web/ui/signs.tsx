import type { ReactNode } from 'react';
import type { Direction } from '#core/tune';
import { dot, outlines, polyline } from './paths';

/** The name sign: two strokes down and up, begun on a filled head and ended on an open one. */
export function NameSign({ size = 34 }: { readonly size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 32 32" aria-hidden>
      <path
        d="M6 24 11.5 8 16 19 20.5 8 26 24"
        fill="none"
        stroke="var(--walnut)"
        strokeWidth="2.4"
        strokeLinejoin="round"
        strokeLinecap="round"
      />
      <circle cx="6" cy="24" r="2.5" fill="var(--woad)" />
      <circle cx="26" cy="24" r="2.5" fill="var(--paper)" stroke="var(--woad)" strokeWidth="1.7" />
    </svg>
  );
}

/** Outline of a bow sign whose foot stands on (x, y): down-bow an open frame, up-bow a wedge. */
export function bowSignPath(x: number, y: number, down: boolean): string {
  if (down) return `M${x - 4} ${y}V${y - 9}H${x + 4}V${y}H${x + 3}V${y - 5.4}H${x - 3}V${y}Z`;
  return `M${x - 3.8} ${y - 10}h1.2L${x} ${y - 2.4}L${x + 2.6} ${y - 10}h1.2L${x + 0.5} ${y}h-1Z`;
}

export function BowSign({ direction }: { readonly direction: Direction }) {
  return (
    <svg width="12" height="13" viewBox="0 0 12 13" aria-hidden className="inline-block align-[-1px]">
      <path d={bowSignPath(6, 12, direction === 'down')} fill="currentColor" />
    </svg>
  );
}

/** The four gestures as the bow lane draws them. */
export function GestureSign({ gesture }: { readonly gesture: 'slur' | 'change' | 'hook' | 'retake' }) {
  const paths = {
    slur: 'M3 4 31 13M17 5.5v6',
    change: 'M3 4 17 13 31 4',
    hook: 'M3 4 14 7.5M20 9.5 31 13',
    retake: 'M3 4 15 13M19 4 31 13',
  };
  return (
    <svg width="34" height="17" viewBox="0 0 34 17" aria-hidden>
      <path d={paths[gesture]} fill="none" stroke="currentColor" strokeWidth="1.8" strokeLinecap="round" />
    </svg>
  );
}

/** Slots of a pattern as strokes falling and rising, ticks where notes share one. */
export function PatternSign({ slots, width = 96 }: { readonly slots: readonly number[]; readonly width?: number }) {
  const cycles = slots.length % 2 === 0 ? [...slots] : [...slots, ...slots];
  const units = cycles.reduce((sum, slot) => sum + slot, 0);
  const unit = (width - 8) / units;
  let x = 4;
  const [strokes, ticks, down, up] = outlines(4);
  for (const [i, slot] of cycles.entries()) {
    const isDown = i % 2 === 0;
    const rise = Math.min(12, 4 + 2.6 * slot);
    const y = isDown ? 11 - rise / 2 : 11 + rise / 2;
    const toY = isDown ? 11 + rise / 2 : 11 - rise / 2;
    const length = slot * unit - 3;
    polyline(strokes, [x, y], [x + length, toY]);
    for (let k = 1; k < slot; k++) {
      const tickX = x + (length * k) / slot;
      const tickY = y + ((toY - y) * k) / slot;
      polyline(ticks, [tickX, tickY - 3], [tickX, tickY + 3]);
    }
    dot(isDown ? down : up, x, y, 2.2);
    x += slot * unit;
  }
  return (
    <svg width={width} height="22" viewBox={`0 0 ${width} 22`} aria-hidden>
      <path d={`${strokes}${ticks}`} fill="none" stroke="currentColor" strokeWidth="1.5" strokeLinecap="round" />
      <path d={down.toString()} fill="currentColor" />
      <path d={up.toString()} fill="var(--surface)" stroke="currentColor" strokeWidth="1.3" />
    </svg>
  );
}

/** Strokes into which notes are entered: a tick for each note that shares one, a longer line for a held note. */
export function StrokeSign({
  gesture,
  filled,
}: {
  readonly gesture: 'one' | 'pair' | 'three' | 'held';
  readonly filled: number;
}) {
  const ticks = { one: [], pair: [18], three: [13, 23], held: [] }[gesture];
  const end = gesture === 'one' ? 20 : 33;
  const y = (x: number) => 5 + ((x - 4) * 9) / (end - 4);
  return (
    <svg width="37" height="19" viewBox="0 0 37 19" aria-hidden>
      <path d={`M4 5L${end} 14`} stroke="currentColor" strokeWidth="1.8" strokeLinecap="round" />
      <circle cx="4" cy="5" r="2.6" fill="currentColor" />
      {ticks.map((x, i) => (
        <path
          key={x}
          d={`M${x} ${y(x) - 4}v8`}
          stroke={filled > i + 1 ? 'var(--woad)' : 'currentColor'}
          strokeWidth="1.8"
        />
      ))}
    </svg>
  );
}

interface RoomSignProps {
  readonly size?: number;
  readonly strokeWidth?: number;
}

function RoomSign({ size = 20, strokeWidth = 1.6, children }: RoomSignProps & { readonly children: ReactNode }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 24 24"
      fill="none"
      stroke="currentColor"
      strokeWidth={strokeWidth}
      strokeLinecap="round"
      aria-hidden
    >
      {children}
    </svg>
  );
}

/** Steps of tempo, up to where it breaks. */
export function DanceSign(props: RoomSignProps) {
  return (
    <RoomSign {...props}>
      <path d="M2.5 20h4.5v-4.5h4.5V11H16V6.5" strokeLinejoin="round" />
      <path d="M18 3.2l3.6 3.6M21.6 3.2L18 6.8" />
    </RoomSign>
  );
}

/** A stretch under its bracket, down and up. */
export function PracticeSign(props: RoomSignProps) {
  return (
    <RoomSign {...props}>
      <path d="M3.5 8V4.5h17V8" strokeLinejoin="round" />
      <path d="M5 19.5l7-8 7 8" strokeLinejoin="round" />
    </RoomSign>
  );
}

/** A fiddle's peg: head, collar and tapered shaft. */
export function PegSign(props: RoomSignProps) {
  return (
    <RoomSign {...props}>
      <ellipse cx="7.6" cy="7.6" rx="3.9" ry="5.6" transform="rotate(-45 7.6 7.6)" />
      <path d="M10 14l4-4M12.6 12.8l8 7.6M13.6 11.4l7.2 8.8" />
    </RoomSign>
  );
}
