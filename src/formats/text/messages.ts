import type { ImportCode, ImportSeverity } from './codes';
import { type ImportMatter, MATTER_GRADES } from './matters';

/** What a reader has to say about its input; line and column count from 1. */
export interface ImportMessage {
  readonly line: number;
  readonly column: number;
  readonly severity: ImportSeverity;
  readonly code: ImportCode;
  readonly matter: ImportMatter;
  /** The file inside an archive, where it was read with others. */
  readonly entry?: string;
}

/** A matter at its place. */
export function importMessage(
  { line, column }: Pick<ImportMessage, 'line' | 'column'>,
  matter: ImportMatter,
): ImportMessage {
  const [severity, code] = MATTER_GRADES[matter.what];
  return { line, column, severity, code, matter };
}

/** Where a file is told of as a whole. */
export const FILE_START = { line: 1, column: 1 } as const;

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
