import { barNumbers, writtenBars, writtenNotes } from '#core/tune';
import { readAbcTunes } from '#formats/abc';
import type { ReadTune } from '#formats/score';
import { readMorrinJson } from '#formats/json';
import { type ImportMessage, decodeText } from '#formats/text';
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
      ? {
          tunes: [toImported({ tune: read.tune, messages: [], source: text, barPositions: new Map(), voices: [] })],
          messages: [],
        }
      : { tunes: [], messages: read.messages };
  }
  const tunes: ImportedTune[] = [];
  const messages: ImportMessage[] = [];
  let count = 0;
  for (const result of readAbcTunes(text)) {
    if ('failed' in result) messages.push(...result.failed);
    else tunes.push(toImported(result));
    count += 1;
    if (count % PROGRESS_EVERY === 0) onProgress(count);
  }
  if (count === 0) {
    const message = 'No tune was found: expected ABC with a K: line and notes after it.';
    messages.push({ line: 1, column: 1, severity: 'error', code: 'no-notes', message });
  }
  return { tunes, messages };
}

function toImported(read: Omit<ReadTune, 'reference'>): ImportedTune {
  const { tune, source } = read;
  const ofBar = messagesByBar(read);
  const parts = [...writtenBars(tune)].map(([name, bars]) => {
    const numbers = barNumbers(bars, tune.form.filter((played) => played === name).length);
    return {
      name,
      bars: bars.map(({ event: { id } }, i) => ({ number: numbers.get(id) ?? i + 1, messages: ofBar.get(id) ?? [] })),
    };
  });
  return {
    title: tune.title,
    tune,
    bars: parts.reduce((sum, { bars }) => sum + bars.length, 0),
    notes: writtenNotes(tune).length,
    parts,
    messages: ofBar.get(null) ?? [],
    source: source ?? '',
  };
}

/** Each message with the bar that it stands in; those before the first bar under null. */
function messagesByBar({ messages, barPositions }: Omit<ReadTune, 'reference'>): Map<string | null, ImportMessage[]> {
  const isAfter = (a: { line: number; column: number }, b: { line: number; column: number }) =>
    a.line > b.line || (a.line === b.line && a.column >= b.column);
  const starts = [...barPositions].sort(([, a], [, b]) => a.line - b.line || a.column - b.column);
  const found = new Map<string | null, ImportMessage[]>();
  let at = -1;
  for (const message of messages) {
    while (at + 1 < starts.length && isAfter(message, starts[at + 1]![1])) at += 1;
    const id = starts[at]?.[0] ?? null;
    found.set(id, [...(found.get(id) ?? []), message]);
  }
  return found;
}
