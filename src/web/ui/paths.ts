import { type Path, pathRound } from 'd3-path';

/** A drawn outline, to a hundredth of a pixel. */
export const outline = (): Path => pathRound(2);

/** Several that are drawn at once. */
export function outlines(count: 2): [Path, Path];
export function outlines(count: 4): [Path, Path, Path, Path];
export function outlines(count: 5): [Path, Path, Path, Path, Path];
export function outlines(count: 6): [Path, Path, Path, Path, Path, Path];
export function outlines(count: number): Path[] {
  return Array.from({ length: count }, outline);
}

/** A line from place to place. */
export function polyline(path: Path, ...places: readonly (readonly [x: number, y: number])[]): void {
  for (const [i, [x, y]] of places.entries()) {
    if (i === 0) path.moveTo(x, y);
    else path.lineTo(x, y);
  }
}

/** A whole circle. */
export function dot(path: Path, x: number, y: number, radius: number): void {
  path.moveTo(x + radius, y);
  path.arc(x, y, radius, 0, 2 * Math.PI);
  path.closePath();
}
