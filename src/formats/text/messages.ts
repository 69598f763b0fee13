/** What a reader has to say about its input; line and column count from 1. */
export interface ImportMessage {
  readonly line: number;
  readonly column: number;
  readonly severity: 'error' | 'warning' | 'info';
  readonly code: ImportCode;
  readonly message: string;
}

export const IMPORT_CODES = [
  'empty',
  'not-text',
  'not-read',
  'fault',
  'no-notes',
  'too-long',
  'syntax',
  'unclosed-slur',
  'unopened-slur',
  'unclosed-tuplet',
  'unclosed-mark',
  'bar-sum',
  'voice-left-out',
  'not-kept',
  'not-followed',
  'unknown-type',
  'tempo-beat',
  'part-order',
  'bad-directive',
] as const;
export type ImportCode = (typeof IMPORT_CODES)[number];

export function importMessage(
  line: number,
  column: number,
  severity: ImportMessage['severity'],
  code: ImportMessage['code'],
  words: string,
): ImportMessage {
  return { line, column, severity, code, message: words };
}

/** Turns offsets into lines and columns of a text. */
export class TextPositions {
  private readonly starts: number[] = [0];

  constructor(
    text: string,
    private readonly firstLine = 1,
  ) {
    for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) this.starts.push(at + 1);
  }

  at(offset: number): { line: number; column: number } {
    let low = 0;
    let high = this.starts.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.starts[middle]! <= offset) low = middle;
      else high = middle - 1;
    }
    return { line: low + this.firstLine, column: offset - this.starts[low]! + 1 };
  }
}
