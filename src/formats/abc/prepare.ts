import { type ImportMatter, type ImportMessage, importMessage, type TextPositions } from '../text';
import { SlurStack } from './slurStack';

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
  const scan = new TextScan(positions);
  let offset = 0;
  const lines = source.split('\n').map((line) => {
    const start = offset;
    offset += line.length + 1;
    return scan.line(calmed(line), start);
  });
  return { text: lines.join('\n'), ...scan.ended() };
}

/** A line of music while it is gone through: what is changed in it, and where in the text it begins. */
interface ScannedLine {
  readonly text: string;
  readonly start: number;
  readonly change: (at: number, text: string) => void;
}

/** Goes through the signs of all lines; what looks at one says which character of its line was its last. */
class TextScan {
  private readonly messages: ImportMessage[] = [];
  private readonly playsAt = new Map<number, number>();
  private readonly slurs = new SlurStack();
  private readonly unclosed: number[] = [];

  constructor(private readonly positions: TextPositions) {}

  /** The line as the parser is to have it. */
  line(text: string, start: number): string {
    // The parser needs a space after nothing: field lines and comments go as they are.
    // What is said in our own words is read by us; to the parser it is a comment.
    if (text.startsWith(OWN_LINE)) return `% ${text.slice(2)}`;
    if (!MUSIC_LINE.test(text)) return text;
    const { change, changed } = changes(text);
    const line: ScannedLine = { text, start, change };
    for (let i = nextSign(text, 0); i >= 0 && text[i] !== '%'; i = nextSign(text, i + 1)) i = this.sign(line, i);
    return changed();
  }

  ended(): Omit<PreparedText, 'text'> {
    this.slurs.endEndings();
    this.slurs.left().forEach((at) => this.leaveOpen(at));
    const { messages, playsAt, unclosed, slurs } = this;
    return { messages, playsAt, openSlurs: new Set(unclosed), endings: slurs.endings };
  }

  private sign(line: ScannedLine, i: number): number {
    const { text } = line;
    switch (text[i]) {
      case '"':
        return this.quoted(line, i);
      case '!':
        return this.marked(line, i);
      case ':':
        return this.repeat(line, i);
      case '(':
        if (matchAt(TUPLET, text, i) === null) this.openSlur(line, i);
        return i;
      case ')':
        this.closeSlur(line, i);
        return i;
      default:
        return this.bracketOrBar(line, i);
    }
  }

  private say(at: number, matter: ImportMatter): void {
    this.messages.push(importMessage(this.positions.at(at), matter));
  }

  private leaveOpen(at: number): void {
    this.unclosed.push(at);
    this.say(at, { what: 'slur-unclosed' });
  }

  private beginEnding(at: number, number: string | undefined): void {
    this.slurs.beginEnding(at, number === '1').forEach((open) => this.leaveOpen(open));
  }

  private quoted({ text, start, change }: ScannedLine, i: number): number {
    const end = text.indexOf('"', i + 1);
    if (end >= 0) return end;
    this.say(start + i, { what: 'quote-unclosed' });
    change(i, blank(text, i, text.length));
    return text.length;
  }

  private marked({ text, start, change }: ScannedLine, i: number): number {
    const word = matchAt(MARK, text, i);
    if (word !== null) return i + word.length - 1;
    const rest = matchAt(OPEN_MARK, text, i)!;
    this.say(start + i, { what: 'mark-unclosed', mark: rest });
    const end = i + unclosedLength(rest);
    change(i, blank(text, i, end));
    return end - 1;
  }

  private openSlur({ start, change }: ScannedLine, i: number): void {
    const { depth } = this.slurs;
    if (depth === MAX_NESTED_SLURS) this.say(start + i, { what: 'slurs-too-deep', max: MAX_NESTED_SLURS });
    if (depth >= MAX_NESTED_SLURS) change(i, '`');
    this.slurs.open(depth >= MAX_NESTED_SLURS ? null : start + i);
  }

  private closeSlur({ start, change }: ScannedLine, i: number): void {
    const opened = this.slurs.close();
    if (opened === undefined) this.say(start + i, { what: 'slur-unopened' });
    if (opened === undefined || opened === null) change(i, '`');
  }

  private repeat({ text, start, change }: ScannedLine, i: number): number {
    const last = repeatSign(text, i, start, this.playsAt, change);
    const sign = text.slice(i, last + 1);
    if (/\|:|::/.test(sign)) this.slurs.endEndings();
    else if (sign.includes('|') && /\d/.test(text[last + 1] ?? '')) this.beginEnding(start + last, text[last + 1]);
    return last;
  }

  private bracketOrBar({ text, start, change }: ScannedLine, i: number): number {
    if (text[i] === '[' && matchAt(INLINE_FIELD, text, i) !== null) {
      const end = text.indexOf(']', i);
      return end < 0 ? text.length : end;
    }
    if (matchAt(ENDING, text, i) !== null) {
      this.beginEnding(start + i, text[i + 1]);
      return i;
    }
    if (text[i] !== '|') return i;
    if (text[i + 1] === ':') {
      this.slurs.endEndings();
      let last = i + 1;
      // `|::` opens what a later `::|` closes: the count is read there.
      for (; text[last + 1] === ':'; last++) change(last + 1, ' ');
      return last;
    }
    if (DOUBLE_BAR.test(text.slice(i, i + 8))) this.slurs.endEndings();
    return i;
  }
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
