import { newTuneSchema } from '../json';
import { type FileKind, READ_EXTENSIONS } from '../kinds';
import type { ReadMidi } from '../midi';
import type { ReadTune } from '../score';
import { decodeText, FILE_START, type ImportMatter, type ImportMessage, importMessage } from '../text';
import { FILE_FORMATS, type FileChoice, type FileContent, startsWith } from './fileFormats';
import { unzip, type ZipEntry } from './unzip';

/** A tune of a file, with what is known of the file it stood in. */
export interface FileTune extends ReadTune {
  readonly kind: FileKind;
  /** The file inside an archive; null where the file is none. */
  readonly entry: string | null;
  /** What quantising did, for MIDI. */
  readonly quantised: ReadMidi['quantised'];
}

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
    return importMessage(positionOf(read, path), { what: 'field', path: path.join('.'), words: message });
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
    if (!unzipped.ok) yield failure(unzipped.matter);
    else yield* readArchive(unzipped.entries, choice);
  } else yield* readPlain(bytes, choice, null);
}

const KIND_ORDER = Object.keys(FILE_FORMATS) as FileKind[];

function* readPlain(bytes: Uint8Array, choice: FileChoice, entry: string | null): Generator<FileRead> {
  const decoded = decodeText(bytes);
  const content: FileContent = { bytes, text: decoded.ok ? decoded.text : null };
  const kind = KIND_ORDER.find((candidate) => FILE_FORMATS[candidate].sniff(content));
  if (!kind) {
    const isEmpty = !decoded.ok && decoded.reason === 'empty';
    yield failure({ what: isEmpty ? 'file-empty' : 'no-tunes-file' }, entry);
    return;
  }
  for (const read of FILE_FORMATS[kind].read(content, choice))
    yield 'failed' in read ? { ...read, entry } : { ...read, kind, entry };
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
    else yield failure({ what: 'packed-score-missing' });
    return;
  }
  const files = entries.filter(({ name }) => isTuneFile(name)).sort((a, b) => (a.name < b.name ? -1 : 1));
  if (files.length === 0) yield failure({ what: 'archive-without-tunes' });
  for (const { name, bytes } of files) yield* readPlain(bytes, choice, shownName(name));
}

const isScore = (name: string) => /\.(musicxml|xml)$/i.test(name) && !name.startsWith('META-INF/');
const isTuneFile = (name: string) =>
  !/(^|\/)[._]/.test(name) &&
  !name.startsWith('__MACOSX/') &&
  READ_EXTENSIONS.some((extension) => name.toLowerCase().endsWith(extension));

/** A name from an archive is shown, never followed. */
function shownName(name: string): string {
  return name.replace(/\p{Cc}/gu, ' ').slice(-120);
}

function failure(matter: ImportMatter, entry: string | null = null): FileRead {
  return { failed: [importMessage(FILE_START, matter)], entry };
}
