/** Bytes as a reader takes them in: `12 kB`, `3.4 MB`. */
export function sizeWords(bytes: number): string {
  return bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} kB` : `${(bytes / 1e6).toFixed(1)} MB`;
}
