import { readFileSync } from 'node:fs';
import { z } from 'zod';
import { definedOnly, instrumentFileSchema, limitDate, limitValue, schoolsFileSchema } from '#contract/settings';
import { type Instrument, instrumentWith } from '#core/instrument';
import { DEFAULT_SCHOOLS, type Schools } from '#core/schools';
import {
  GUESSED_LIMITS,
  type Limit,
  LIMIT_KEYS,
  LIMIT_SOURCES,
  type LimitKey,
  type Limits,
  limitsWith,
} from '#core/tempo';
import type { Tune } from '#core/tune';
import { readFile } from '#formats/file';
import type { ImportMessage } from '#formats/text';
import { importWords } from '#words/importMessage';
import { InputError, UsageError } from './usage';

export interface InputTune {
  readonly reference: string;
  readonly tune: Tune;
  readonly messages: readonly ImportMessage[];
}

export function readBytes(file: string): Uint8Array {
  try {
    return readFileSync(file === '-' ? 0 : file);
  } catch (error) {
    throw new InputError(`${file}:1:1: cannot be read: ${(error as Error).message}`);
  }
}

/**
 * The tunes of a file, or the one whose `X:` is asked for; those of other formats are counted from 1.
 * @param leftOut gets a line for each tune that could not be read beside others that could
 */
export function readTunes(file: string, wanted: string | undefined, leftOut: string[]): InputTune[] {
  const tunes: InputTune[] = [];
  const messages: ImportMessage[] = [];
  for (const read of readFile(readBytes(file)))
    if ('failed' in read) messages.push(...read.failed);
    else
      tunes.push({ reference: read.reference || String(tunes.length + 1), tune: read.tune, messages: read.messages });
  if (tunes.length === 0) throw new InputError(inputLines(file, messages));
  if (messages.length > 0) leftOut.push(inputLines(file, messages));
  if (wanted === undefined) return tunes;
  const found = tunes.filter(({ reference }) => reference === wanted);
  if (found.length === 0)
    throw new InputError(
      `${file}:1:1: no tune X:${wanted}; the file holds X:${tunes.map(({ reference }) => reference).join(', ')}`,
    );
  return found.slice(0, 1);
}

function inputLines(file: string, messages: readonly ImportMessage[]): string {
  return messages.map((message) => `${file}:${message.line}:${message.column}: ${importWords(message)}`).join('\n');
}

export function readJson<T>(file: string, schema: z.ZodType<T>): T {
  let value: unknown;
  try {
    value = JSON.parse(new TextDecoder().decode(readBytes(file)));
  } catch (error) {
    if (error instanceof InputError) throw error;
    throw new InputError(`${file}:1:1: not JSON: ${(error as Error).message}`);
  }
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  throw new InputError(
    parsed.error.issues.map(({ path, message }) => `${file}:1:1: ${path.join('.') || 'file'}: ${message}`).join('\n'),
  );
}

/** Each a number, or with where it is from and its day. */
const limit = z.union([limitValue.transform((value): Limit => ({ value, source: 'measured' })), limitObject()], {
  error: ({ input }) =>
    `expected a number above 0, or { "value", "source", "date" } with such a value and a day such as 2026-03-02, got ${JSON.stringify(input)}`,
});

function limitObject() {
  return z.strictObject({
    value: limitValue,
    source: z.enum(LIMIT_SOURCES).default('measured'),
    date: limitDate.optional(),
    attempts: z.int().min(0).optional(),
  });
}
const limitsFile = z.strictObject(
  Object.fromEntries(LIMIT_KEYS.map((key) => [key, limit.optional()])) as Record<LimitKey, z.ZodOptional<typeof limit>>,
);

/** A player's limits: each a number, or `{ value, source, date }`; what is left out stays a guess. */
export function readLimits(file: string | undefined): Limits {
  return limitsWith(
    file === undefined ? {} : (readJson(file, limitsFile) as Partial<Record<keyof typeof GUESSED_LIMITS, Limit>>),
  );
}

/** Figures of fiddle and bow; what is left out is a full-size fiddle's. */
export function readInstrument(file: string | undefined): Instrument {
  return instrumentWith(file === undefined ? {} : definedOnly(readJson(file, instrumentFileSchema)));
}

/** How the player was taught; what is left out is as usual. */
export function readSchools(file: string | undefined): Schools {
  return { ...DEFAULT_SCHOOLS, ...(file === undefined ? {} : definedOnly(readJson(file, schoolsFileSchema))) };
}

/** A number option within a range. */
export function numberOption(name: string, text: string | undefined, low: number, high: number): number | undefined {
  if (text === undefined) return undefined;
  const value = Number(text);
  if (!Number.isFinite(value) || value < low || value > high)
    throw new UsageError(`--${name}: expected a number from ${low} to ${high}, got ${text}`);
  return value;
}
