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

/** Slurs inside each other: notation has two or three. */
const MOST_NESTED_SLURS = 16;

const OWN_LINE = '%%morrin-';
const MUSIC_LINE = /^(?![A-Za-z]:|%|\s*$)/;

/** What may stand at a place of a line; sticky, so that nothing is copied to look. */
const MARK = /!([^!|\s[\]]*)!/y;
const OPEN_MARK = /![A-Za-z.()]*/y;
const INLINE_FIELD = /\[[A-Za-z]:/y;
const TUPLET = /\(\d/y;

function matchAt(pattern: RegExp, line: string, at: number): string | null {
  pattern.lastIndex = at;
  return pattern.exec(line)?.[0] ?? null;
}

/**
 * Scans the music of one tune for what the parser passes over in silence: unclosed slurs and marks (which it would
 * read as notes), repeat signs of more than two plays and `:|:`, which it does not know.
 */
export function prepareText(source: string, positions: TextPositions): PreparedText {
  const messages: ImportMessage[] = [];
  const playsAt = new Map<number, number>();
  /** Where slurs were opened; null for those that are left out. */
  const slurs: (number | null)[] = [];
  let offset = 0;
  const say = (at: number, code: ImportMessage['code'], severity: ImportMessage['severity'], message: string) =>
    messages.push({ ...positions.at(at), severity, code, message });

  const lines = source.split('\n').map((given) => {
    const start = offset;
    offset += given.length + 1;
    const line = calmed(given);
    // The parser needs a space after nothing: field lines and comments go as they are.
    // What is said in our own words is read by us; to the parser it is a comment.
    if (line.startsWith(OWN_LINE)) return `% ${line.slice(2)}`;
    if (!MUSIC_LINE.test(line)) return line;
    const { change, changed } = changes(line);
    for (let i = nextSign(line, 0); i >= 0; i = nextSign(line, i + 1)) {
      const char = line[i]!;
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
          change(i, blank(line, i, line.length));
          break;
        }
        i = end;
      } else if (char === '!') {
        const word = matchAt(MARK, line, i);
        if (word !== null) {
          i += word.length - 1;
        } else {
          const rest = matchAt(OPEN_MARK, line, i)!;
          say(start + i, 'unclosed-mark', 'error', `The mark ${rest} is opened with ! and not closed; it is left out.`);
          const end = i + unclosedLength(rest);
          change(i, blank(line, i, end));
          i = end - 1;
        }
      } else if (char === '[' && matchAt(INLINE_FIELD, line, i) !== null) {
        const end = line.indexOf(']', i);
        i = end < 0 ? line.length : end;
      } else if (char === '(' && matchAt(TUPLET, line, i) === null) {
        if (slurs.length === MOST_NESTED_SLURS)
          say(
            start + i,
            'not-kept',
            'warning',
            `Slurs are open inside ${MOST_NESTED_SLURS} others here; they are left out.`,
          );
        if (slurs.length >= MOST_NESTED_SLURS) change(i, '`');
        slurs.push(slurs.length >= MOST_NESTED_SLURS ? null : start + i);
      } else if (char === ')') {
        const opened = slurs.pop();
        if (opened === undefined)
          say(start + i, 'unopened-slur', 'warning', 'A slur is closed here that was never opened; it is left out.');
        if (opened === undefined || opened === null) change(i, '`');
      } else if (char === ':') {
        i = repeatSign(line, i, start, playsAt, change);
      } else if (char === '|' && line[i + 1] === ':') {
        i += 1;
        // `|::` opens what a later `::|` closes: the count is read there.
        for (; line[i + 1] === ':'; i++) change(i + 1, ' ');
      }
    }
    return changed();
  });
  const open = slurs.filter((at) => at !== null);
  for (const at of open)
    say(at, 'unclosed-slur', 'error', 'A slur is opened here and never closed; the notes keep a stroke each.');
  return { text: lines.join('\n'), messages, playsAt, openSlurs: new Set(open) };
}

/** White space in a row that the parser is given as it stands; it takes the square of the time for more. */
const LONG_BLANK = /\s{32,}/g;

/** A line of the same length in which long blanks are a comment at its end, and before that what the parser passes over. */
function calmed(line: string): string {
  if (line.length < 64) return line;
  return line.replace(LONG_BLANK, (blank, at: number) =>
    at + blank.length === line.length ? ` ${'%'.repeat(blank.length - 1)}` : ` ${'`'.repeat(blank.length - 2)} `,
  );
}

/** A sign that is looked at. */
const SIGN = /[%"![(:)|]/g;

/** The next sign of a line from a place on; -1 where none is left. */
function nextSign(line: string, from: number): number {
  SIGN.lastIndex = from;
  return SIGN.exec(line)?.index ?? -1;
}

/** Changes of a line, character for character; nearly every line has none. */
function changes(line: string) {
  let chars: string[] | null = null;
  return {
    change: (at: number, text: string) => {
      chars ??= line.split('');
      for (let i = 0; i < text.length; i++) chars[at + i] = text[i]!;
    },
    changed: () => chars?.join('') ?? line,
  };
}

/** Rewrites `:|:`, `:||:` as `::` and `::|` as `:|`; returns the offset of the sign's last character. */
function repeatSign(
  line: string,
  i: number,
  start: number,
  playsAt: Map<number, number>,
  change: (at: number, text: string) => void,
): number {
  const sign = /^(:+)([|\]]*)(:*)/.exec(line.slice(i, i + 12))!;
  const [whole, before, bars, after] = sign as unknown as [string, string, string, string];
  const end = i + whole.length;
  if (bars === '') {
    if (before.length >= 2) playsAt.set(start + i, Math.max(2, Math.ceil(before.length / 2) + 1));
    return end - 1;
  }
  if (before.length > 1) playsAt.set(start + i, before.length + 1);
  const kept = after !== '' ? '::' : before.length > 1 ? `:|${bars.slice(1, 2)}` : null;
  if (kept !== null) {
    change(i, blank(line, i, end));
    change(i, kept);
  }
  return end - 1;
}

/** An unclosed mark is its ! and the word at it, when the word is longer than a note would be. */
function unclosedLength(rest: string): number {
  return /^![a-z.]{3,}/i.test(rest) ? rest.length : 1;
}

/** What the parser passes over, for a stretch of a line; up to the line's end, a comment. */
function blank(line: string, from: number, to: number): string {
  return (to >= line.length ? '%' : '`').repeat(Math.max(0, Math.min(to, line.length) - from));
}
