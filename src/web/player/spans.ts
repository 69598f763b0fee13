import type { TuneReport } from '#core/report';
import { selectionWords } from '#words/selection';
import type { Span } from './span';

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
 * What is to be played for a selection of written notes. A loop plays several notes as they are on the pass in view, of a single
 * note the whole pass that it stands in, with none the tune; else it goes from the first of them to the end.
 */
export function spanOf(
  report: TuneReport,
  ids: readonly string[],
  passInView: PassInView,
  loops: boolean,
): Span | null {
  const first = ids[0] === undefined ? null : playedIndex(report, ids[0], passInView);
  const last = ids.length < 2 ? first : playedIndex(report, ids[ids.length - 1]!, passInView);
  const { notes, passes } = report.unrolled;
  if (first === null || last === null) return null;
  if (!loops) return first === 0 ? null : { from: first, to: notes.length };
  if (ids.length > 1) return last >= first ? { from: first, to: last + 1 } : null;
  const { firstNote, endNote } = passes[notes[first]!.passIndex]!;
  return { from: firstNote, to: endNote };
}

/** Bars beyond the selection that are heard with it. */
const BARS_AFTER = 1;
/** Bars that are heard where nothing is selected. */
const BARS_AT_FIRST = 4;

/** The bars in which the selection stands and the one after, on the pass in view; the first bars where nothing is selected. */
export function barsAround(report: TuneReport, ids: readonly string[], passInView: PassInView): Span | null {
  const { notes } = report.unrolled;
  const first = ids[0] === undefined ? null : playedIndex(report, ids[0], passInView);
  const last = ids.length < 2 ? first : playedIndex(report, ids[ids.length - 1]!, passInView);
  if (notes.length === 0) return null;
  const [low, high] = first === null || last === null || last < first ? [0, null] : [first, last];
  const { passIndex, bar: fromBar } = notes[low]!;
  const toBar = high === null ? fromBar + BARS_AT_FIRST - 1 : notes[high]!.bar + BARS_AFTER;
  const lastPass = notes[high ?? low]!.passIndex;
  const from = notes.findIndex((note) => note.passIndex === passIndex && note.bar === fromBar);
  let to = high ?? low;
  while (to + 1 < notes.length && notes[to + 1]!.passIndex === lastPass && notes[to + 1]!.bar <= toBar) to += 1;
  return { from, to: to + 1 };
}

/** What a loop would play: `bars 3–4 of A`, `part A`, `the whole tune`. */
export function loopedWords(report: TuneReport, ids: readonly string[], passInView: PassInView): string {
  const span = spanOf(report, ids, passInView, true);
  if (!span) return 'the whole tune';
  return ids.length > 1 ? selectionWords(report, ids) : `part ${report.unrolled.notes[span.from]!.part}`;
}

/** The first note of a pass. */
export function passStart({ unrolled }: TuneReport, part: string, pass: number): number | null {
  const found = unrolled.passes.find((played) => played.part === part && played.pass === pass);
  return found && found.endNote > found.firstNote ? found.firstNote : null;
}
