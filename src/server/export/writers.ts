import { Zip, ZipDeflate, strToU8 } from 'fflate';
import type { PlayerSettings } from '#core/report';
import { reportTune } from '#core/report';
import type { Tune } from '#core/tune';
import { writeAbc } from '#formats/abc';
import { BOOK_FORMAT, writeMorrinJson } from '#formats/json';
import { writeMidi } from '#formats/midi';
import { writeMusicXml } from '#formats/musicxml';

export type Tunes = AsyncIterable<{ id: string; tune: Tune }>;

/** Lets other requests be answered between two tunes. */
const breathe = () => new Promise<void>((resolve) => setImmediate(resolve));

/** One text with all tunes, numbered from 1. */
export async function* abcBook(tunes: Tunes): AsyncGenerator<string> {
  let number = 0;
  for await (const { tune } of tunes) {
    number += 1;
    yield `${number > 1 ? '\n' : ''}${writeAbc(tune, String(number))}`;
    await breathe();
  }
}

export async function* jsonBook(tunes: Tunes): AsyncGenerator<string> {
  yield `{"format":"${BOOK_FORMAT}","schemaVersion":1,"tunes":[\n`;
  let isFirst = true;
  for await (const { tune } of tunes) {
    yield `${isFirst ? '' : ',\n'}${JSON.stringify(tune)}`;
    isFirst = false;
  }
  yield '\n]}\n';
}

/** One tune as a file of its own. */
export function tuneFile(
  format: 'abc' | 'musicxml' | 'midi' | 'json',
  tune: Tune,
  settings: PlayerSettings,
): Uint8Array {
  switch (format) {
    case 'abc':
      return strToU8(writeAbc(tune));
    case 'json':
      return strToU8(writeMorrinJson(tune));
    case 'musicxml':
      return strToU8(writeMusicXml(tune));
    case 'midi':
      return writeMidi(reportTune(tune, settings));
  }
}

/** Many tunes as an archive, packed and sent one by one; equal titles are told apart by a number. */
export async function* archive(
  format: 'musicxml' | 'midi',
  tunes: Tunes,
  settings: PlayerSettings,
): AsyncGenerator<Uint8Array> {
  const ready: Uint8Array[] = [];
  const zip = new Zip((error, chunk) => {
    if (error) throw error;
    ready.push(chunk);
  });
  const names = new Map<string, number>();
  for await (const { tune } of tunes) {
    const plain = fileStem(tune.title);
    const count = (names.get(plain) ?? 0) + 1;
    names.set(plain, count);
    const file = new ZipDeflate(`${plain}${count > 1 ? ` (${count})` : ''}${EXTENSIONS[format]}`);
    zip.add(file);
    file.push(tuneFile(format, tune, settings), true);
    yield* ready.splice(0);
    await breathe();
  }
  zip.end();
  yield* ready.splice(0);
}

export const EXTENSIONS = {
  abc: '.abc',
  musicxml: '.musicxml',
  midi: '.mid',
  json: '.morrin.json',
  csv: '.csv',
} as const;

/** A title as the name of a file on any system. */
export function fileStem(title: string): string {
  const plain = title
    .replace(/[<>:"/\\|?*\p{Cc}]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[.\s]+|[.\s]+$/g, '');
  return plain.slice(0, 80).trim() || 'tune';
}
