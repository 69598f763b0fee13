import { crc32, deflateRawSync } from 'node:zlib';
import type { PlayerSettings } from '#core/report';
import type { Tune } from '#core/tune';
import { FILE_FORMATS, type WriteOptions } from '#formats/file';
import type { FileKind } from '#formats/kinds';

/** A tune as a file, as it is or packed as an archive holds it. */
export interface TuneFile {
  readonly title: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** Of the file before it was packed. */
  readonly size: number;
  readonly crc: number;
}

/**
 * Documents as files of a format. Texts that stand one after another in one file are numbered from `first`; null: each is a
 * file of its own. Files of an archive come packed (raw DEFLATE).
 */
export function tuneFiles(
  format: FileKind,
  documents: readonly string[],
  settings: PlayerSettings,
  { first = null, isPacked = false }: { readonly first?: number | null; readonly isPacked?: boolean } = {},
): TuneFile[] {
  return documents.map((document, i) => {
    const tune = JSON.parse(document) as Tune;
    const file = tuneFile(format, tune, { settings, ...(first === null ? {} : { number: String(first + i) }) });
    return {
      title: tune.title,
      bytes: isPacked ? deflateRawSync(file) : file,
      size: file.length,
      crc: isPacked ? crc32(file) : 0,
    };
  });
}

function tuneFile(kind: FileKind, tune: Tune, options: WriteOptions): Uint8Array<ArrayBuffer> {
  const written = FILE_FORMATS[kind].write(tune, options);
  return typeof written === 'string' ? Buffer.from(written) : written;
}
