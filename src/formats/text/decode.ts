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

/** null where the bytes are not valid UTF-8 (RFC 3629: no overlong forms, no surrogates, up to U+10FFFF). */
function decodeUtf8(bytes: Uint8Array): string | null {
  if (bytes.every((byte) => byte < 0x80)) return singleBytes(bytes);
  const parts: string[] = [];
  for (let i = 0; i < bytes.length;) {
    const first = bytes[i]!;
    const length = first < 0x80 ? 1 : first >= 0xc2 && first < 0xe0 ? 2 : first < 0xf0 ? 3 : first < 0xf5 ? 4 : 0;
    if (length === 0 || (first >= 0x80 && first < 0xc2) || i + length > bytes.length) return null;
    let code = length === 1 ? first : first & (0xff >> (length + 1));
    for (let k = 1; k < length; k++) {
      const next = bytes[i + k]!;
      if ((next & 0xc0) !== 0x80) return null;
      code = (code << 6) | (next & 0x3f);
    }
    const isOverlong = (length === 3 && code < 0x800) || (length === 4 && code < 0x10000);
    if (isOverlong || code > 0x10ffff || (code >= 0xd800 && code <= 0xdfff)) return null;
    parts.push(String.fromCodePoint(code));
    i += length;
  }
  return parts.join('');
}

/** Bytes turned to text at once. */
const CHUNK = 8192;

/** Each byte as the character of its number: ASCII, and Latin-1 beyond it. */
function singleBytes(bytes: Uint8Array): string {
  let text = '';
  for (let at = 0; at < bytes.length; at += CHUNK) text += String.fromCharCode(...bytes.subarray(at, at + CHUNK));
  return text;
}
