import { Unzip, UnzipInflate } from 'fflate';
import type { ImportMatter } from '../text';

/** A file inside an archive. */
export interface ZipEntry {
  readonly name: string;
  readonly bytes: Uint8Array;
}

export type Unzipped =
  { readonly ok: true; readonly entries: readonly ZipEntry[] } | { readonly ok: false; readonly matter: ImportMatter };

/** Limits of what an archive may hold: it tells its sizes as it likes, so what really comes out is counted. */
export const MAX_ENTRIES = 2000;
export const MAX_UNZIPPED_BYTES = 40 * 1024 * 1024;

/** Small pieces: a piece can swell a thousandfold before it is looked at. */
const PIECE_BYTES = 4096;

/**
 * Unpacks an archive in memory, piece by piece, and gives up as soon as more comes out than is taken. Names are only
 * labels: nothing is written anywhere. Archives inside archives are left as they are.
 */
export function unzip(bytes: Uint8Array): Unzipped {
  const entries: ZipEntry[] = [];
  let total = 0;
  let problem: ImportMatter | null = null;
  const abort = (matter: ImportMatter) => {
    problem ??= matter;
    throw new Error(matter.what);
  };
  const archive = new Unzip((file) => {
    if (entries.length >= MAX_ENTRIES) abort({ what: 'archive-too-many', max: MAX_ENTRIES });
    const parts: Uint8Array[] = [];
    file.ondata = (error, data, isLast) => {
      if (error) abort({ what: 'archive-damaged' });
      total += data.length;
      if (total > MAX_UNZIPPED_BYTES) abort({ what: 'archive-too-large', maxMb: MAX_UNZIPPED_BYTES / 1024 / 1024 });
      parts.push(data);
      if (isLast && !file.name.endsWith('/')) entries.push({ name: file.name, bytes: joined(parts) });
    };
    file.start();
  });
  archive.register(UnzipInflate);
  try {
    for (let at = 0; at < bytes.length; at += PIECE_BYTES)
      archive.push(bytes.subarray(at, at + PIECE_BYTES), at + PIECE_BYTES >= bytes.length);
  } catch {
    return { ok: false, matter: problem ?? { what: 'archive-damaged' } };
  }
  return entries.length > 0 ? { ok: true, entries } : { ok: false, matter: { what: 'archive-empty' } };
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
