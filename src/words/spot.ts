import type { ReusedRun } from '#core/editing';
import type { Spot } from '#core/report';

/** `Bar 6`. */
export function barWords({ bar }: Pick<Spot, 'bar'>): string {
  return bar === 0 ? 'Pickup' : `Bar ${bar}`;
}

/** `Bar 6 of B`. */
export function spotWords(place: Pick<Spot, 'bar' | 'part'>): string {
  return `${barWords(place)} of ${place.part}`;
}

/** `5–8`, `5`, `pickup–2`. */
export function barSpan(from: number, to: number): string {
  const name = (bar: number) => (bar === 0 ? 'pickup' : String(bar));
  return from === to ? name(from) : `${name(from)}–${name(to)}`;
}

/** `as A 5–8`, over bars that take up others. */
export function reuseWords({ ofPart, ofFrom, ofTo }: ReusedRun): string {
  return `as ${ofPart} ${barSpan(ofFrom, ofTo)}`;
}
