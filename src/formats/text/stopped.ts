import { OutOfBounds } from './lengths';
import type { ReadSubject } from './matters';
import { type ImportMessage, importMessage } from './messages';

type Position = Pick<ImportMessage, 'line' | 'column'>;

/**
 * Why a reader could not go on: music out of bounds in the words of the bound, at its place; anything else is a fault of
 * Morrin and is called one, so that it is told from a fault of the file.
 */
export function stopMessage(
  error: unknown,
  subject: ReadSubject,
  start: Position,
  placeOf: (offset: number) => Position = () => start,
): ImportMessage {
  if (error instanceof OutOfBounds)
    return importMessage(placeOf(Math.max(0, error.offset)), { what: 'out-of-bounds', subject, fault: error.fault });
  const detail = error instanceof Error ? error.message : String(error);
  return importMessage(start, { what: 'fault', subject, detail });
}
