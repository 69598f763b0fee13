import type { z } from 'zod';
import type { Tune } from '#core/tune';
import { FILE_START, type ImportMessage, importMessage, TextPositions } from '../text';
import { newTuneSchema } from './tuneSchema';

export type ReadJson =
  { readonly ok: true; readonly tune: Tune } | { readonly ok: false; readonly messages: ImportMessage[] };

/** Reads a Morrin plan; says where the text is not JSON, or which field is not as expected. */
export function readMorrinJson(text: string): ReadJson {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    const words = error instanceof Error ? error.message : 'not JSON';
    const offset = Number(/position (\d+)/.exec(words)?.[1] ?? 0);
    return { ok: false, messages: [importMessage(new TextPositions(text).at(offset), { what: 'not-json', words })] };
  }
  const parsed = newTuneSchema.safeParse(value);
  if (parsed.success) return { ok: true, tune: parsed.data };
  return { ok: false, messages: issueMessages(parsed.error) };
}

export function writeMorrinJson(tune: Tune): string {
  return `${JSON.stringify(tune, null, 2)}\n`;
}

/** A whole book as one file; `docs/formats.md` describes it. */
export function writeMorrinBook(tunes: readonly Tune[]): string {
  return `{"format":"${BOOK_FORMAT}","schemaVersion":1,"tunes":[\n${tunes.map((tune) => JSON.stringify(tune)).join(',\n')}\n]}\n`;
}

/** What a file that holds a book calls itself. */
export const BOOK_FORMAT = 'morrin-book';

/** Reads a plan, or a book or list of plans, one after another; a plan that is not as expected is told by its number. */
export function* readMorrinBook(
  text: string,
): Generator<{ readonly tune: Tune } | { readonly failed: ImportMessage[] }> {
  const list = plansIn(text);
  if (!list) {
    const read = readMorrinJson(text);
    yield read.ok ? { tune: read.tune } : { failed: read.messages };
    return;
  }
  if (list.length === 0) yield { failed: [importMessage(FILE_START, { what: 'empty-book' })] };
  for (const [i, plan] of list.entries()) {
    const parsed = newTuneSchema.safeParse(plan);
    if (parsed.success) yield { tune: parsed.data };
    else yield { failed: issueMessages(parsed.error, `tunes.${i}.`) };
  }
}

/** The plans of a book or list; null where the text is a plan by itself, or no JSON. */
function plansIn(text: string): unknown[] | null {
  try {
    const value = JSON.parse(text) as unknown;
    if (Array.isArray(value)) return value;
    const { format, tunes } = (value ?? {}) as { format?: unknown; tunes?: unknown };
    return format === BOOK_FORMAT && Array.isArray(tunes) ? tunes : null;
  } catch {
    return null;
  }
}

function issueMessages(error: z.ZodError, prefix = ''): ImportMessage[] {
  return error.issues.slice(0, 20).map(({ path, message }) =>
    importMessage(FILE_START, {
      what: 'plan-field',
      path: `${prefix}${path.join('.') || 'the plan'}`,
      words: message,
    }),
  );
}
