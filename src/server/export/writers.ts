import { strToU8, Zip, type ZipInputFile, ZipPassThrough } from 'fflate';
import type { PlayerSettings } from '#core/report';
import { BOOK_FORMAT } from '#formats/json';
import { FILE_KINDS, type FileKind } from '#formats/kinds';
import type { Jobs } from '../jobs/jobs';
import type { ChosenTune } from './chosenDocuments';
import type { TuneFile } from './tuneFiles';

export type Tunes = AsyncIterable<ChosenTune>;

/** Letters of documents that are written in one piece of work. */
const LETTERS_AT_ONCE = 1_000_000;

/** Documents in batches of about equal work. */
async function* batched(tunes: Tunes): AsyncGenerator<string[]> {
  let batch: string[] = [];
  let letters = 0;
  for await (const { document } of tunes) {
    batch.push(document);
    letters += document.length;
    if (letters < LETTERS_AT_ONCE) continue;
    yield batch;
    batch = [];
    letters = 0;
  }
  if (batch.length > 0) yield batch;
}

/**
 * Documents as files; those of a batch that fails one by one, so that one enormous tune keeps no other back.
 * @returns files in the order of the documents, and where one could not be written, why not
 */
async function filesOf(
  jobs: Jobs,
  format: FileKind,
  documents: readonly string[],
  settings: PlayerSettings,
  choice: { readonly first?: number; readonly isPacked?: boolean },
): Promise<(TuneFile | LeftOut)[]> {
  try {
    return await jobs.tuneFiles(format, documents, settings, choice);
  } catch (error) {
    if (documents.length > 1) {
      const files: (TuneFile | LeftOut)[] = [];
      for (const [i, document] of documents.entries()) {
        const own = choice.first === undefined ? choice : { ...choice, first: choice.first + i };
        files.push(...(await filesOf(jobs, format, [document], settings, own)));
      }
      return files;
    }
    const { title } = JSON.parse(documents[0]!) as { title: string };
    return [{ title, why: error instanceof Error ? error.message : String(error) }];
  }
}

/** A tune that could not be written. */
interface LeftOut {
  readonly title: string;
  readonly why: string;
}

const leftOutWords = ({ title, why }: LeftOut) => `${title.replace(/\s+/g, ' ')}: left out. ${why}\n`;

/** One text with all tunes, numbered from 1. */
export async function* abcBook(
  tunes: Tunes,
  settings: PlayerSettings,
  jobs: Jobs,
): AsyncGenerator<string | Uint8Array> {
  let first = 1;
  for await (const documents of batched(tunes)) {
    for (const file of await filesOf(jobs, 'abc', documents, settings, { first })) {
      if (first > 1) yield '\n';
      yield 'why' in file ? `% ${leftOutWords(file)}` : file.bytes;
      first += 1;
    }
  }
}

/** The documents as they are kept. */
export async function* jsonBook(tunes: Tunes): AsyncGenerator<string> {
  yield `{"format":"${BOOK_FORMAT}","schemaVersion":1,"tunes":[\n`;
  let isFirst = true;
  for await (const { document } of tunes) {
    yield `${isFirst ? '' : ',\n'}${document}`;
    isFirst = false;
  }
  yield '\n]}\n';
}

/** Many tunes as an archive, packed and sent batch by batch; equal titles are told apart by a number. */
export async function* archive(
  format: FileKind,
  tunes: Tunes,
  settings: PlayerSettings,
  jobs: Jobs,
): AsyncGenerator<Uint8Array> {
  const ready: Uint8Array[] = [];
  const zip = new Zip((error, chunk) => {
    if (error) throw error;
    ready.push(chunk);
  });
  const names = new Map<string, number>();
  let leftOut = '';
  for await (const documents of batched(tunes))
    for (const file of await filesOf(jobs, format, documents, settings, { isPacked: true })) {
      if ('why' in file) {
        leftOut += leftOutWords(file);
        continue;
      }
      const plain = fileStem(file.title);
      const count = (names.get(plain) ?? 0) + 1;
      names.set(plain, count);
      addPacked(zip, `${plain}${count > 1 ? ` (${count})` : ''}${FILE_KINDS[format].extension}`, file);
      yield* ready.splice(0);
    }
  if (leftOut !== '') {
    const text = new ZipPassThrough('left out.txt');
    zip.add(text);
    text.push(strToU8(leftOut), true);
  }
  zip.end();
  yield* ready.splice(0);
}

/** PKZIP's number for DEFLATE. */
const DEFLATE = 8;

function addPacked(zip: Zip, filename: string, { bytes, size, crc }: TuneFile): void {
  const file: ZipInputFile = { filename, size, crc, compression: DEFLATE };
  zip.add(file);
  file.ondata!(null, bytes, true);
}

/** A title as the name of a file on any system. */
export function fileStem(title: string): string {
  const plain = title
    .replace(/[<>:"/\\|?*\p{Cc}]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[.\s]+|[.\s]+$/g, '');
  return plain.slice(0, 80).trim() || 'tune';
}
