export type Decoded =
  | { readonly ok: true; readonly text: string; readonly encoding: 'utf-8' | 'latin-1' }
  | { readonly ok: false; readonly reason: 'empty' | 'not-text' };

/** Control bytes that no music text holds: all but tab, line feed, form feed, carriage return and escape. */
const isControl = (byte: number) => byte < 0x20 && ![0x09, 0x0a, 0x0c, 0x0d, 0x1a, 0x1b].includes(byte);

/**
 * Text of a file's bytes: UTF-8 with or without a mark, else Latin-1; line ends become \n.
 * Bytes with control characters are not text.
 */
export function decodeText(bytes: Uint8Array): Decoded {
  if (bytes.length === 0) return { ok: false, reason: 'empty' };
  if (bytes.some(isControl)) return { ok: false, reason: 'not-text' };
  const utf8 = decodeUtf8(bytes);
  const text = utf8 ?? singleBytes(bytes);
  const clean = text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
  if (clean.trim() === '') return { ok: false, reason: 'empty' };
  return { ok: true, text: clean, encoding: utf8 === null ? 'latin-1' : 'utf-8' };
}

/** null where the bytes are not valid UTF-8. */
function decodeUtf8(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}

/** Bytes turned to text at once. */
const CHUNK = 8192;

/** Each byte as the character of its number: ASCII, and Latin-1 beyond it. */
function singleBytes(bytes: Uint8Array): string {
  let text = '';
  for (let at = 0; at < bytes.length; at += CHUNK) text += String.fromCharCode(...bytes.subarray(at, at + CHUNK));
  return text;
}
