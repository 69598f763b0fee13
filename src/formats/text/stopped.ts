import { OutOfBounds } from './lengths';
import { type ImportMessage, importMessage } from './messages';

type Position = Pick<ImportMessage, 'line' | 'column'>;

/**
 * Why a reader could not go on: music out of bounds in the words of the bound, at its place; anything else is a fault of
 * Morrin and is called one, so that it is told from a fault of the file.
 */
export function stopMessage(
  error: unknown,
  subject: 'tune' | 'score' | 'file',
  start: Position,
  placeOf: (offset: number) => Position = () => start,
): ImportMessage {
  if (error instanceof OutOfBounds) {
    const { line, column } = placeOf(Math.max(0, error.offset));
    return importMessage(line, column, 'error', 'not-read', `This ${subject} could not be read: ${error.message}.`);
  }
  const detail = error instanceof Error ? error.message : String(error);
  const words = `Reading this ${subject} ended in a fault of Morrin (${detail}). Nothing of the file is lost; the rest is read.`;
  return importMessage(start.line, start.column, 'error', 'fault', words);
}
