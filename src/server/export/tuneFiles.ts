import { crc32, deflateRawSync } from 'node:zlib';
import { type PlayerSettings, reportTune } from '#core/report';
import type { Tune } from '#core/tune';
import type { ExportFormat } from '#contract/exports';
import { writeAbc } from '#formats/abc';
import { writeMorrinJson } from '#formats/json';
import { writeMidi } from '#formats/midi';
import { writeMusicXml } from '#formats/musicxml';

export type FileFormat = Exclude<ExportFormat, 'csv'>;

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
  format: FileFormat,
  documents: readonly string[],
  settings: PlayerSettings,
  { first = null, isPacked = false }: { readonly first?: number | null; readonly isPacked?: boolean } = {},
): TuneFile[] {
  return documents.map((document, i) => {
    const tune = JSON.parse(document) as Tune;
    const file = tuneFile(format, tune, settings, first === null ? null : first + i);
    return {
      title: tune.title,
      bytes: isPacked ? deflateRawSync(file) : file,
      size: file.length,
      crc: isPacked ? crc32(file) : 0,
    };
  });
}

function tuneFile(
  format: FileFormat,
  tune: Tune,
  settings: PlayerSettings,
  number: number | null,
): Uint8Array<ArrayBuffer> {
  switch (format) {
    case 'abc':
      return Buffer.from(number === null ? writeAbc(tune) : writeAbc(tune, String(number)));
    case 'json':
      return Buffer.from(writeMorrinJson(tune));
    case 'musicxml':
      return Buffer.from(writeMusicXml(tune));
    case 'midi':
      return writeMidi(reportTune(tune, settings));
  }
}
