import { Unzip, UnzipInflate } from 'fflate';

/** A file inside an archive. */
export interface ZipEntry {
  readonly name: string;
  readonly bytes: Uint8Array;
}

export type Unzipped =
  { readonly ok: true; readonly entries: readonly ZipEntry[] } | { readonly ok: false; readonly message: string };

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
  let problem: string | null = null;
  const abort = (words: string) => {
    problem ??= words;
    throw new Error(words);
  };
  const archive = new Unzip((file) => {
    if (entries.length >= MAX_ENTRIES) abort(`This archive holds more than ${MAX_ENTRIES} files.`);
    const parts: Uint8Array[] = [];
    file.ondata = (error, data, isLast) => {
      if (error) abort('This archive is damaged.');
      total += data.length;
      if (total > MAX_UNZIPPED_BYTES) abort(`Unpacked, this archive is over ${MAX_UNZIPPED_BYTES / 1024 / 1024} MB.`);
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
    return { ok: false, message: problem ?? 'This archive is damaged.' };
  }
  return entries.length > 0
    ? { ok: true, entries }
    : { ok: false, message: 'This archive holds no files, or is damaged.' };
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
