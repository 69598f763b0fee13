import type { BeatsPerMinute } from '#core/base';
import type { TuneReport } from '#core/report';
import type { EventKind } from '#core/tempo';

/** By kind of event the tightest of a stretch: min ln(available/needed). Kinds that do not occur are left out. */
export type Margins = Readonly<Partial<Record<EventKind, number>>>;

/** What leads from one note to the next: of no concern where a stretch begins. */
const LEADING: ReadonlySet<EventKind> = new Set(['crossing', 'hop', 'barre', 'shift', 'retake']);

/** Whether an event belongs to the way to a note and not to the note. */
export const isLeading = (kind: EventKind): boolean => LEADING.has(kind);

/** Margins of played notes, first to last, at the report's tempo; the way to the first is left out. Time O(n). */
export function marginsOf({ figures: { check } }: TuneReport, first: number, last: number): Margins {
  const margins: Partial<Record<EventKind, number>> = {};
  for (let index = first; index <= last && index < check.events.length; index++)
    for (const { kind, availableMs, neededMs } of check.events[index]!) {
      if (index === first && isLeading(kind)) continue;
      margins[kind] = Math.min(margins[kind] ?? Infinity, Math.log(availableMs / neededMs));
    }
  return margins;
}

/**
 * Margins at another tempo: ln(available/needed) falls by ln(to/from), since what is available is inverse to the tempo. Exact
 * for even timing; with a lilt, which flattens as tempo rises, a near guess.
 */
export function marginsAt(margins: Margins, from: BeatsPerMinute, to: BeatsPerMinute): Margins {
  const shift = Math.log(from / to);
  return Object.fromEntries(Object.entries(margins).map(([kind, margin]) => [kind, margin + shift]));
}
