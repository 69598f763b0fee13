import type { Tune } from '#core/tune';
import { type ImportMessage, TextPositions, importMessage } from '../text';
import { tuneSchema } from './tuneSchema';

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
    const { line, column } = new TextPositions(text).at(offset);
    return { ok: false, messages: [importMessage(line, column, 'error', 'syntax', `Not JSON: ${words}.`)] };
  }
  const parsed = tuneSchema.safeParse(value);
  if (parsed.success) return { ok: true, tune: parsed.data };
  const messages = parsed.error.issues
    .slice(0, 20)
    .map(({ path, message }) => importMessage(1, 1, 'error', 'syntax', `${path.join('.') || 'the plan'}: ${message}.`));
  return { ok: false, messages };
}

export function writeMorrinJson(tune: Tune): string {
  return `${JSON.stringify(tune, null, 2)}\n`;
}
