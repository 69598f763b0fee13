import type { NoteState } from '#core/noteStates';
import type { TuneReport } from '#core/report';

/** A stroke as the bow sheet speaks of it. */
export interface ToldStroke {
  readonly words: string;
  readonly seconds: number;
  readonly cm: number;
}

/** The stroke to speak of: that of a note, else the longest. */
export function strokeToTell(report: TuneReport, state: NoteState | undefined, where: string): ToldStroke | null {
  const strokes = report.sharedStrokes();
  if (strokes.length === 0) return null;
  const own = state && strokes.find(({ first, notes }) => state.index >= first && state.index < first + notes);
  const told = own ?? strokes.reduce((longest, stroke) => (stroke.seconds > longest.seconds ? stroke : longest));
  const cm = Math.abs(told.toCm - told.fromCm);
  const words = `${own ? `The stroke in ${where}` : 'The longest stroke'}: ${(1000 * told.seconds).toFixed(0)} ms at dance tempo, ${cm.toFixed(0)} cm of hair.`;
  return { words, seconds: told.seconds, cm };
}
