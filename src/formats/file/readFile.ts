import { readAbcTunes } from '../abc';
import { readMorrinBook, newTuneSchema } from '../json';
import { type MidiChoice, readMidi } from '../midi';
import { readMusicXml } from '../musicxml';
import type { ReadTune } from '../score';
import { type ImportMessage, decodeText, importMessage } from '../text';
import { type ZipEntry, unzip } from './unzip';

export type FileKind = 'abc' | 'musicxml' | 'midi' | 'json';

/** A tune of a file, with what is known of the file it stood in. */
export interface FileTune extends ReadTune {
  readonly kind: FileKind;
  /** The file inside an archive; null where the file is none. */
  readonly entry: string | null;
  /** What quantising did, for MIDI. */
  readonly quantised: ReturnType<typeof readMidi>['quantised'];
}

/** How a file is to be read; a tune whose file has no such voice is read by its main one. */
export type FileChoice = MidiChoice;

/** A tune, or why a stretch of the file gave none. */
export type FileRead = FileTune | { readonly failed: readonly ImportMessage[]; readonly entry: string | null };

/**
 * Reads a file of whatever kind, told by what is in it and not by its name: ABC, MusicXML (also packed), MIDI, a Morrin
 * plan or book, or an archive of such files. One tune at a time, so that a caller can show progress and stop. Never
 * throws for what a file can hold.
 */
export function* readFile(bytes: Uint8Array, choice: FileChoice = {}): Generator<FileRead> {
  for (const read of readKinds(bytes, choice)) yield 'failed' in read ? read : checked(read);
}

/** What a reader made of a file may still be no tune that can be kept: a title of a thousand letters, a note beyond hearing. */
function checked(read: FileTune): FileRead {
  if (read.kind === 'json') return read;
  const parsed = newTuneSchema.safeParse(read.tune);
  if (parsed.success) return { ...read, tune: parsed.data };
  const failed = parsed.error.issues.slice(0, 20).map(({ path, message }) => {
    const { line, column } = positionOf(read, path);
    return importMessage(line, column, 'error', 'not-read', `${path.join('.')}: ${message}.`);
  });
  return { failed, entry: read.entry };
}

/** Where the bar begins in which something of a tune stands, as far as the file has places; else the tune's first bar. */
function positionOf({ tune, barPositions }: FileTune, path: readonly PropertyKey[]) {
  const [first, part, second, event] = path;
  const events = first === 'parts' && second === 'events' ? tune.parts[Number(part)]?.events : undefined;
  const bar = events?.slice(0, Number(event) + 1).findLast(({ kind }) => kind === 'bar');
  return (bar && barPositions.get(bar.id)) ?? [...barPositions.values()][0] ?? { line: 1, column: 1 };
}

function* readKinds(bytes: Uint8Array, choice: FileChoice): Generator<FileRead> {
  if (startsWith(bytes, 'PK')) {
    const unzipped = unzip(bytes);
    if (!unzipped.ok) yield failure('not-read', unzipped.message);
    else yield* readArchive(unzipped.entries, choice);
  } else yield* readPlain(bytes, choice, null);
}

function* readPlain(bytes: Uint8Array, choice: FileChoice, entry: string | null): Generator<FileRead> {
  if (startsWith(bytes, 'MThd')) {
    const { tune, messages, quantised } = readMidi(bytes, choice);
    yield tune ? { ...tune, kind: 'midi', entry, quantised } : { failed: messages, entry };
    return;
  }
  const decoded = decodeText(bytes);
  if (!decoded.ok) {
    const words =
      decoded.reason === 'empty'
        ? 'The file is empty: expected ABC, MusicXML, MIDI or a Morrin plan.'
        : 'This is no file of tunes: expected ABC, MusicXML, MIDI or a Morrin plan.';
    yield failure(decoded.reason, words, entry);
    return;
  }
  const { text } = decoded;
  const start = text.trimStart();
  if (start.startsWith('<')) {
    const { tunes, messages } = readMusicXml(text, choice.voice);
    for (const tune of tunes) yield { ...tune, kind: 'musicxml', entry, quantised: null };
    if (messages.length > 0) yield { failed: messages, entry };
    return;
  }
  if (start.startsWith('{') || start.startsWith('[{')) {
    for (const read of readMorrinBook(text))
      yield 'failed' in read
        ? { ...read, entry }
        : {
            ...read,
            reference: '',
            messages: [],
            source: null,
            barPositions: new Map(),
            voices: [],
            kind: 'json',
            entry,
            quantised: null,
          };
    return;
  }
  let count = 0;
  for (const read of readAbcTunes(text, choice.voice)) {
    count += 1;
    yield 'failed' in read ? { ...read, entry } : { ...read, kind: 'abc', entry, quantised: null };
  }
  if (count === 0)
    yield failure('no-notes', 'No tune was found: expected ABC with a K: line and notes after it.', entry);
}

const CONTAINER = 'META-INF/container.xml';

/** A packed MusicXML score names its own file; any other archive is read file by file, in the order of their names. */
function* readArchive(entries: readonly ZipEntry[], choice: FileChoice): Generator<FileRead> {
  const container = entries.find(({ name }) => name === CONTAINER);
  if (container) {
    const text = decodeText(container.bytes);
    const path = text.ok ? /<rootfile\b[^>]*\bfull-path\s*=\s*["']([^"']+)["']/.exec(text.text)?.[1] : undefined;
    const score = entries.find(({ name }) => name === path) ?? entries.find(({ name }) => isScore(name));
    if (score) yield* readPlain(score.bytes, choice, null);
    else yield failure('not-read', 'This packed score does not hold the file that it names.');
    return;
  }
  const files = entries.filter(({ name }) => isTuneFile(name)).sort((a, b) => (a.name < b.name ? -1 : 1));
  if (files.length === 0)
    yield failure('not-read', 'This archive holds no file of tunes: expected ABC, MusicXML, MIDI or Morrin plans.');
  for (const { name, bytes } of files) yield* readPlain(bytes, choice, shownName(name));
}

const isScore = (name: string) => /\.(musicxml|xml)$/i.test(name) && !name.startsWith('META-INF/');
const isTuneFile = (name: string) =>
  !/(^|\/)[._]/.test(name) && !name.startsWith('__MACOSX/') && /\.(abc|txt|musicxml|xml|midi?|json)$/i.test(name);

/** A name from an archive is shown, never followed. */
function shownName(name: string): string {
  return name.replace(/\p{Cc}/gu, ' ').slice(-120);
}

function failure(code: ImportMessage['code'], words: string, entry: string | null = null): FileRead {
  return { failed: [importMessage(1, 1, 'error', code, words)], entry };
}

function startsWith(bytes: Uint8Array, mark: string): boolean {
  return bytes.length >= mark.length && [...mark].every((char, i) => bytes[i] === char.charCodeAt(0));
}
