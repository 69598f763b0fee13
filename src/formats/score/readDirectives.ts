import { type ImportMatter, type ImportMessage, importMessage } from '../text';
import { type DirectiveDraft, type DirectiveName, DIRECTIVES, type MorrinDirectives } from './directiveTable';

const NAMES = Object.keys(DIRECTIVES) as DirectiveName[];

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
    const said = { name, value: value.slice(0, 60) };
    const faults: readonly ImportMatter[] = known
      ? DIRECTIVES[known]
          .read(value, read)
          .map((fault) => (fault.what === 'bad-directive' ? { ...fault, ...said } : { ...fault, value: said.value }))
      : [{ what: 'unknown-directive', ...said, known: NAMES }];
    for (const matter of faults) messages.push(importMessage({ line, column: 10 + name.length }, matter));
  }
  // In the order of the table, whatever the order of the file.
  const rank = (line: string) => NAMES.findIndex((name) => name === line);
  return { ...read, notes: read.notes.sort((a, b) => rank(a.line) - rank(b.line)) };
}
