import type { ImportMessage, TextPositions } from '../text';

/** Text that the parser reads rightly, every character at its old offset, and what had to be said about it. */
export interface PreparedText {
  readonly text: string;
  readonly messages: ImportMessage[];
  /** Offsets of repeat signs that ask for more than two plays. */
  readonly playsAt: ReadonlyMap<number, number>;
  /** Offsets of slur openings that are never closed. */
  readonly openSlurs: ReadonlySet<number>;
}

const MUSIC_LINE = /^(?![A-Za-z]:|%|\s*$)/;

/**
 * Scans the music of one tune for what the parser passes over in silence: unclosed slurs and marks (which it would
 * read as notes), repeat signs of more than two plays and `:|:`, which it does not know.
 */
export function prepareText(source: string, positions: TextPositions): PreparedText {
  const messages: ImportMessage[] = [];
  const playsAt = new Map<number, number>();
  const slurs: number[] = [];
  let offset = 0;
  const say = (at: number, code: ImportMessage['code'], severity: ImportMessage['severity'], message: string) =>
    messages.push({ ...positions.at(at), severity, code, message });

  const lines = source.split('\n').map((line) => {
    const start = offset;
    offset += line.length + 1;
    // The parser needs a space after nothing: field lines and comments go as they are.
    if (!MUSIC_LINE.test(line)) return line;
    const chars =
      [...line].length === line.length ? line.split('') : Array.from({ length: line.length }, (_, i) => line[i]!);
    for (let i = 0; i < chars.length; i++) {
      const char = chars[i]!;
      if (char === '%') break;
      if (char === '"') {
        const end = line.indexOf('"', i + 1);
        if (end < 0) {
          say(
            start + i,
            'unclosed-mark',
            'error',
            'A chord name or note is opened with " and not closed; it is left out.',
          );
          blank(chars, i, chars.length);
          break;
        }
        i = end;
      } else if (char === '!') {
        const word = /^!([^!|\s[\]]*)!/.exec(line.slice(i));
        if (word) {
          i += word[0].length - 1;
        } else {
          const rest = /^![A-Za-z.()]*/.exec(line.slice(i))![0];
          say(start + i, 'unclosed-mark', 'error', `The mark ${rest} is opened with ! and not closed; it is left out.`);
          blank(chars, i, i + unclosedLength(rest));
          i += unclosedLength(rest) - 1;
        }
      } else if (char === '[' && /^\[[A-Za-z]:/.test(line.slice(i))) {
        const end = line.indexOf(']', i);
        i = end < 0 ? chars.length : end;
      } else if (char === '(' && !/^\(\d/.test(line.slice(i))) {
        slurs.push(start + i);
      } else if (char === ')') {
        if (slurs.pop() === undefined) {
          say(start + i, 'unopened-slur', 'warning', 'A slur is closed here that was never opened; it is left out.');
          chars[i] = ' ';
        }
      } else if (char === ':') {
        i = repeatSign(chars, i, start, playsAt);
      } else if (char === '|' && chars[i + 1] === ':' && chars[i + 2] === ':') {
        // `|::` opens what a later `::|` closes: the count is read there.
        for (let k = i + 2; chars[k] === ':'; k++) chars[k] = ' ';
        i += 1;
      } else if (char === '|' && chars[i + 1] === ':') {
        i += 1;
      }
    }
    return chars.join('');
  });
  for (const at of slurs)
    say(at, 'unclosed-slur', 'error', 'A slur is opened here and never closed; the notes keep a stroke each.');
  return { text: lines.join('\n'), messages, playsAt, openSlurs: new Set(slurs) };
}

/** Rewrites `:|:`, `:||:` as `::` and `::|` as `:|`; returns the offset of the sign's last character. */
function repeatSign(chars: string[], i: number, start: number, playsAt: Map<number, number>): number {
  const sign = /^(:+)([|\]]*)(:*)/.exec(chars.slice(i, i + 12).join(''))!;
  const [whole, before, bars, after] = sign as unknown as [string, string, string, string];
  if (bars === '') {
    if (before.length >= 2) playsAt.set(start + i, Math.max(2, Math.ceil(before.length / 2) + 1));
    return i + whole.length - 1;
  }
  if (before.length > 1) playsAt.set(start + i, before.length + 1);
  if (after !== '') {
    blank(chars, i, i + whole.length);
    chars[i] = ':';
    chars[i + 1] = ':';
  } else if (before.length > 1) {
    blank(chars, i, i + whole.length);
    chars[i] = ':';
    chars[i + 1] = '|';
    if (bars.length > 1) chars[i + 2] = bars[1]!;
  }
  return i + whole.length - 1;
}

/** An unclosed mark is its ! and the word at it, when the word is longer than a note would be. */
function unclosedLength(rest: string): number {
  return /^![a-z.]{3,}/i.test(rest) ? rest.length : 1;
}

function blank(chars: string[], from: number, to: number): void {
  for (let i = from; i < to; i++) chars[i] = ' ';
}
