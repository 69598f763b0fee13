import { melodyLines, melodyPrint, wholeLine } from '#core/likeness';
import { barNumbers, writtenBars, writtenNotes } from '#core/tune';
import { type FileChoice, type FileTune, readFile } from '#formats/file';
import type { ImportMessage } from '#formats/text';
import type { ImportedTune, ImportOutcome } from './importProtocol';

/** Tunes that are handed on together. */
const CHUNK = 20;

/**
 * Reads a file's bytes, of whatever kind, as far as they can be read, some tunes at a time; what there is to say that
 * belongs to none of them comes at the end.
 */
export function* readInChunks(bytes: Uint8Array, choice: FileChoice): Generator<ImportedTune[], ImportMessage[]> {
  const messages: ImportMessage[] = [];
  let chunk: ImportedTune[] = [];
  for (const read of readFile(bytes, choice)) {
    if ('failed' in read) messages.push(...read.failed.map((message) => inEntry(message, read.entry)));
    else chunk.push(toImported(read));
    if (chunk.length < CHUNK) continue;
    yield chunk;
    chunk = [];
  }
  if (chunk.length > 0) yield chunk;
  return messages;
}

/** The same, all at once. */
export function readBytes(bytes: Uint8Array, choice: FileChoice): ImportOutcome {
  const chunks = readInChunks(bytes, choice);
  const tunes: ImportedTune[] = [];
  for (;;) {
    const next = chunks.next();
    if (next.done) return { tunes, messages: next.value };
    tunes.push(...next.value);
  }
}

/** A message about a file inside an archive says which. */
function inEntry(message: ImportMessage, entry: string | null): ImportMessage {
  return entry === null ? message : { ...message, entry };
}

function toImported(read: FileTune): ImportedTune {
  const { tune, source, kind, entry, voices, quantised } = read;
  const ofBar = messagesByBar(read);
  const parts = [...writtenBars(tune)].map(([name, bars]) => {
    const numbers = barNumbers(bars, tune.form.filter((played) => played === name).length);
    return {
      name,
      bars: bars.map(({ event: { id } }, i) => ({ number: numbers.get(id) ?? i + 1, messages: ofBar.get(id) ?? [] })),
    };
  });
  const pitches = wholeLine(melodyLines(tune));
  return {
    title: tune.title,
    toSend: JSON.stringify({ tune, source: source ?? undefined }),
    kind,
    entry,
    bars: parts.reduce((sum, { bars }) => sum + bars.length, 0),
    notes: writtenNotes(tune).length,
    parts,
    messages: ofBar.get(null) ?? [],
    hasSource: source !== null,
    voices,
    quantised,
    melody: { print: melodyPrint(pitches), pitches },
  };
}

/** Each message with the bar that it stands in; those before the first bar under null. */
function messagesByBar({
  messages,
  barPositions,
}: Pick<FileTune, 'messages' | 'barPositions'>): Map<string | null, ImportMessage[]> {
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
