import type { ImportMessage } from '../text';
import { type DirectiveDraft, DIRECTIVES, type MorrinDirectives } from './directiveTable';

const NAMES = Object.keys(DIRECTIVES) as (keyof typeof DIRECTIVES)[];

/** Lines about a tune, each with the line of the file on which it stands. */
export function readDirectives(
  lines: readonly { readonly text: string; readonly line: number }[],
  messages: ImportMessage[],
): MorrinDirectives {
  const read: DirectiveDraft = { plays: [], links: [], reuses: [], notes: [] };
  for (const { text, line } of lines) {
    const match = /^%%morrin-(\w+)\s+(.*)$/.exec(text);
    if (!match) continue;
    const [, name, value] = match as unknown as [string, string, string];
    const known = NAMES.find((candidate) => candidate === name);
    const faults = known ? DIRECTIVES[known].read(value, read) : [`one of ${NAMES.join(', ')}`];
    for (const expected of faults)
      messages.push({
        line,
        column: 10 + name.length,
        severity: 'warning',
        code: 'bad-directive',
        message: `%%morrin-${name}: expected ${expected}, got "${value.slice(0, 60)}".`,
      });
  }
  // In the order of the table, whatever the order of the file.
  const rank = (line: string) => NAMES.findIndex((name) => name === line);
  return { ...read, notes: read.notes.sort((a, b) => rank(a.line) - rank(b.line)) };
}
