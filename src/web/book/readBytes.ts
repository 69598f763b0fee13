import { writtenBars, writtenNotes } from '#core/tune';
import { readAbcTunes } from '#formats/abc';
import { readMorrinJson } from '#formats/json';
import { type ImportMessage, decodeText } from '#formats/text';
import type { Tune } from '#core/tune';
import type { ImportOutcome, ImportedTune } from './importProtocol';

const PROGRESS_EVERY = 10;

/** Reads a file's bytes, ABC or a Morrin plan, as far as it can be read. */
export function readBytes(bytes: Uint8Array, onProgress: (tunesRead: number) => void): ImportOutcome {
  const decoded = decodeText(bytes);
  if (!decoded.ok) {
    const words =
      decoded.reason === 'empty'
        ? 'The file is empty: expected ABC text.'
        : 'This is not a text file: expected ABC, which is plain text.';
    return { tunes: [], messages: [{ line: 1, column: 1, severity: 'error', code: decoded.reason, message: words }] };
  }
  const { text } = decoded;
  if (text.trimStart().startsWith('{')) {
    const read = readMorrinJson(text);
    return read.ok
      ? { tunes: [toImported(read.tune, [], text)], messages: [] }
      : { tunes: [], messages: read.messages };
  }
  const tunes: ImportedTune[] = [];
  const messages: ImportMessage[] = [];
  let count = 0;
  for (const result of readAbcTunes(text)) {
    if ('failed' in result) messages.push(...result.failed);
    else tunes.push(toImported(result.tune, result.messages, result.source));
    count += 1;
    if (count % PROGRESS_EVERY === 0) onProgress(count);
  }
  if (count === 0) {
    const message = 'No tune was found: expected ABC with a K: line and notes after it.';
    messages.push({ line: 1, column: 1, severity: 'error', code: 'no-notes', message });
  }
  return { tunes, messages };
}

function toImported(tune: Tune, messages: readonly ImportMessage[], source: string): ImportedTune {
  const bars = [...writtenBars(tune).values()].reduce((sum, list) => sum + list.length, 0);
  return { title: tune.title, tune, bars, notes: writtenNotes(tune).length, messages, source };
}
