import type { TuneReport } from '#core/report';
import type { Span } from './player';

/** Passes by part, as they are shown. */
type PassInView = Readonly<Record<string, number>>;

/** Where a written note is played on the pass in view, or at all; null where it is not. */
function playedIndex({ unrolled: { notes } }: TuneReport, id: string, passInView: PassInView): number | null {
  let any: number | null = null;
  for (const played of notes) {
    if (!played.ids.includes(id)) continue;
    if (played.pass === (passInView[played.part] ?? 1)) return played.index;
    any ??= played.index;
  }
  return any;
}

/**
 * What is to be played for a selection of written notes: a loop plays just them on the pass in view, a single note or none
 * the whole tune; else from the first of them to the end.
 */
export function spanOf(
  report: TuneReport,
  ids: readonly string[],
  passInView: PassInView,
  loops: boolean,
): Span | null {
  const first = ids[0] === undefined ? null : playedIndex(report, ids[0], passInView);
  const last = ids.length < 2 ? first : playedIndex(report, ids[ids.length - 1]!, passInView);
  const end = report.unrolled.notes.length;
  if (first === null || last === null) return null;
  if (loops) return ids.length > 1 && last >= first ? { from: first, to: last + 1 } : null;
  return first === 0 ? null : { from: first, to: end };
}

/** The first note of a pass. */
export function passStart({ unrolled }: TuneReport, part: string, pass: number): number | null {
  const found = unrolled.passes.find((played) => played.part === part && played.pass === pass);
  return found && found.endNote > found.firstNote ? found.firstNote : null;
}
