/** One tune's stretch of an ABC file. */
export interface AbcTuneText {
  /** What stands after `X:`; empty where it is left out. */
  readonly reference: string;
  readonly text: string;
  /** Line of the file on which `text` begins, from 1. */
  readonly firstLine: number;
}

/**
 * Cuts a file into tunes: each begins with `X:` and ends at a blank line or the next `X:`.
 * A file without any `X:` is one tune. `%%` lines and defaults before the first tune hold for all of them.
 */
export function splitTunes(text: string): AbcTuneText[] {
  const lines = text.split('\n');
  const starts = lines.flatMap((line, i) => (/^X:/.test(line) ? [i] : []));
  if (starts.length === 0) {
    const first = lines.findIndex((line) => line.trim() !== '');
    if (first < 0) return [];
    return [{ reference: '', text: upToBlank(lines.slice(first)).join('\n'), firstLine: first + 1 }];
  }
  return starts.map((start, i) => {
    const own = upToBlank(lines.slice(start, starts[i + 1] ?? lines.length));
    return { reference: own[0]!.slice(2).replace(/%.*/, '').trim(), text: own.join('\n'), firstLine: start + 1 };
  });
}

/** The defaults that stand before the first tune of a file, as lines. */
export function fileDefaults(text: string): string[] {
  const lines = text.split('\n');
  const first = lines.findIndex((line) => /^X:/.test(line));
  return first <= 0 ? [] : lines.slice(0, first).filter((line) => /^(%%|[MLRCSZOI]:)/.test(line));
}

function upToBlank(lines: readonly string[]): readonly string[] {
  const blank = lines.findIndex((line, i) => i > 0 && line.trim() === '');
  return blank < 0 ? lines : lines.slice(0, blank);
}
