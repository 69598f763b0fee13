import type { ImportMessage, TextPositions } from '../text';

/** Text that the parser reads rightly, every character at its old offset, and what had to be said about it. */
export interface PreparedText {
  readonly text: string;
  readonly messages: ImportMessage[];
  /** Offsets of repeat signs that ask for more than two plays. */
  readonly playsAt: ReadonlyMap<number, number>;
  /** Offsets of slur openings that are never closed. */
  readonly openSlurs: ReadonlySet<number>;
  /** By the offset of each ending's sign, how many of the slurs that run on into it are closed in it. */
  readonly endings: ReadonlyMap<number, number>;
}

/** Slurs inside each other: notation has two or three. */
const MAX_NESTED_SLURS = 16;

const OWN_LINE = '%%morrin-';
const MUSIC_LINE = /^(?![A-Za-z]:|%|\s*$)/;

/** What may stand at a place of a line; sticky, so that nothing is copied to look. */
const MARK = /!([^!|\s[\]]*)!/y;
const OPEN_MARK = /![A-Za-z.()]*/y;
/** `[1`, `|2`: the sign of an ending, without what may stand between it and a repeat sign. */
const ENDING = /[[|]\d/y;
/** A double or last bar line after which no ending follows. */
const DOUBLE_BAR = /^\|[|\]](?!\s*\[?\d)/;
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
  const slurs = new SlurStack();
  let offset = 0;
  const say = (at: number, code: ImportMessage['code'], severity: ImportMessage['severity'], message: string) =>
    messages.push({ ...positions.at(at), severity, code, message });
  const unclosed: number[] = [];
  const leaveOpen = (at: number) => {
    unclosed.push(at);
    say(at, 'unclosed-slur', 'error', 'A slur is opened here and never closed; the notes keep a stroke each.');
  };
  const beginEnding = (at: number, isFirst: boolean) => slurs.beginEnding(at, isFirst).forEach(leaveOpen);

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
      } else if (matchAt(ENDING, line, i) !== null) {
        beginEnding(start + i, line[i + 1] === '1');
      } else if (char === '(' && matchAt(TUPLET, line, i) === null) {
        if (slurs.depth === MAX_NESTED_SLURS)
          say(
            start + i,
            'not-kept',
            'warning',
            `Slurs are open inside ${MAX_NESTED_SLURS} others here; they are left out.`,
          );
        if (slurs.depth >= MAX_NESTED_SLURS) change(i, '`');
        slurs.open(slurs.depth >= MAX_NESTED_SLURS ? null : start + i);
      } else if (char === ')') {
        const opened = slurs.close();
        if (opened === undefined)
          say(start + i, 'unopened-slur', 'warning', 'A slur is closed here that was never opened; it is left out.');
        if (opened === undefined || opened === null) change(i, '`');
      } else if (char === ':') {
        const begins = i;
        i = repeatSign(line, i, start, playsAt, change);
        const sign = line.slice(begins, i + 1);
        if (/\|:|::/.test(sign)) slurs.endEndings();
        else if (sign.includes('|') && /\d/.test(line[i + 1] ?? '')) beginEnding(start + i, line[i + 1] === '1');
      } else if (char === '|' && line[i + 1] === ':') {
        slurs.endEndings();
        i += 1;
        // `|::` opens what a later `::|` closes: the count is read there.
        for (; line[i + 1] === ':'; i++) change(i + 1, ' ');
      } else if (char === '|' && DOUBLE_BAR.test(line.slice(i, i + 8))) slurs.endEndings();
    }
    return changed();
  });
  slurs.endEndings();
  slurs.left().forEach(leaveOpen);
  return { text: lines.join('\n'), messages, playsAt, openSlurs: new Set(unclosed), endings: slurs.endings };
}

interface OpenSlur {
  /** Where it was opened; null: it is left out. */
  readonly at: number | null;
  isClosed: boolean;
}

/**
 * The slurs that are open at a place of the text. Those open where a first ending begins run on into every ending, so
 * each may be closed once in each of them; what an ending opens stays within it.
 */
class SlurStack {
  readonly endings = new Map<number, number>();
  private slurs: OpenSlur[] = [];
  /** Open where the first ending begins; null outside endings. */
  private carried: readonly OpenSlur[] | null = null;
  private ending = 0;

  get depth(): number {
    return this.slurs.length;
  }

  open(at: number | null): void {
    this.slurs.push({ at, isClosed: false });
  }

  /** Closes the innermost one and says where it was opened; undefined where none is open. */
  close(): number | null | undefined {
    const slur = this.slurs.pop();
    if (!slur) return undefined;
    slur.isClosed = true;
    if (this.carried?.includes(slur)) this.endings.set(this.ending, this.endings.get(this.ending)! + 1);
    return slur.at;
  }

  /** Begins an ending; returns where the slurs were opened that the ending before leaves open. */
  beginEnding(at: number, isFirst: boolean): number[] {
    if (isFirst) this.endEndings();
    const left = this.carried ? openedAt(this.slurs.filter((slur) => !this.carried!.includes(slur))) : [];
    this.carried ??= [...this.slurs];
    this.slurs = [...this.carried];
    this.ending = at;
    this.endings.set(at, 0);
    return left;
  }

  endEndings(): void {
    if (this.carried) this.slurs = this.slurs.filter((slur) => !(slur.isClosed && this.carried!.includes(slur)));
    this.carried = null;
  }

  /** Where the slurs still open were opened. */
  left(): number[] {
    return openedAt(this.slurs);
  }
}

const openedAt = (slurs: readonly OpenSlur[]) => slurs.flatMap(({ at }) => (at === null ? [] : [at]));

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
