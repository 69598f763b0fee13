import { createHash } from 'node:crypto';
import { parse } from 'csv-parse/sync';
import { type Attempt, attemptSchema, MAX_LOG_ATTEMPTS } from '#contract/log';
import { LOG_COLUMNS, readPain } from './writeLog';

/** What could not be taken: where in the file, and what was expected. */
export interface LeftOut {
  readonly at: string;
  readonly message: string;
}

export interface ReadLog {
  readonly attempts: readonly Attempt[];
  readonly leftOut: readonly LeftOut[];
}

/** Most faults that are told. */
const MAX_TOLD = 50;

/**
 * Reads a log as it goes out, as a table or as JSON, or as the command line has it: attempts that name their tune by its title
 * get the id of the tune of the book that is called so, and an id made from what they say, so that the same file twice is
 * the same log. What cannot be read is told, the rest is taken.
 * @param idOf the tune of a title; null: there is none
 * @throws RangeError for what is no log at all, or too long a one
 */
export function readLog(text: string, idOf: (title: string) => string | null): ReadLog {
  const rows = /^\s*\{/.test(text) ? jsonRows(text) : csvRows(text);
  if (rows.length > MAX_LOG_ATTEMPTS)
    throw new RangeError(`expected at most ${MAX_LOG_ATTEMPTS} attempts, got ${rows.length}`);
  const attempts: Attempt[] = [];
  const leftOut: LeftOut[] = [];
  for (const { at, row } of rows) {
    const parsed = attemptSchema.safeParse(withIds(row, idOf));
    if (parsed.success) attempts.push(parsed.data);
    else {
      const { path, message } = parsed.error.issues[0]!;
      const isTune = path[0] === 'tuneId' && row['tuneId'] === undefined;
      leftOut.push({
        at,
        message: isTune ? `no tune of the book is called “${String(row['title'])}”` : `${path.join('.')}: ${message}`,
      });
    }
  }
  return { attempts, leftOut: leftOut.slice(0, MAX_TOLD) };
}

interface Row {
  readonly at: string;
  readonly row: Readonly<Record<string, unknown>>;
}

function jsonRows(text: string): Row[] {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new RangeError(`not JSON: ${(error as Error).message}`);
  }
  const own = (value as { attempts?: unknown }).attempts;
  if (!Array.isArray(own)) throw new RangeError('expected "attempts", a list');
  return own.map((row: unknown, i) => {
    const at = `attempts.${i}`;
    if (row === null || typeof row !== 'object') return { at, row: {} };
    const { tune, ...rest } = row as Record<string, unknown>;
    return { at, row: { title: tune, ...rest } };
  });
}

/** A table by its headings, in whatever order. */
function csvRows(text: string): Row[] {
  let rows: Record<string, string>[];
  try {
    rows = parse(text, {
      columns: true,
      bom: true,
      skip_empty_lines: true,
      relax_column_count: true,
    }) as unknown as Record<string, string>[];
  } catch (error) {
    throw new RangeError(`not a table: ${(error as Error).message}`);
  }
  if (rows[0] && !(LOG_COLUMNS.at in rows[0])) throw new RangeError(`expected a column “${LOG_COLUMNS.at}”`);
  return rows.map((cells, i) => {
    const cell = (name: keyof typeof LOG_COLUMNS) => {
      const own = cells[LOG_COLUMNS[name]] ?? '';
      // As the table was written: an apostrophe keeps a spreadsheet from taking text for a formula.
      return /^'[=+\-@\t\r]/.test(own) ? own.slice(1) : own;
    };
    const maybe = (name: keyof typeof LOG_COLUMNS) => (cell(name) === '' ? undefined : cell(name));
    const number = (name: keyof typeof LOG_COLUMNS) => (cell(name) === '' ? undefined : Number(cell(name)));
    return {
      at: `line ${i + 2}`,
      row: {
        id: maybe('id'),
        at: cell('at'),
        tuneId: maybe('tuneId'),
        title: cell('title'),
        revision: number('revision'),
        span: { part: cell('part'), from: cell('from'), to: cell('to') },
        what: maybe('what'),
        drill: maybe('drill') ?? null,
        layer: maybe('layer'),
        way: maybe('way'),
        bpm: number('bpm'),
        wishBpm: number('wishBpm'),
        clean: cell('clean') === 'yes',
        wrong: maybe('wrong') ?? null,
        minutes: number('minutes'),
        note: cell('note'),
        pain: readPain(cell('pain')) ?? (cell('pain') === '' ? null : cell('pain')),
      },
    };
  });
}

/** What a plain log leaves out, filled in. */
function withIds(row: Row['row'], idOf: (title: string) => string | null): Record<string, unknown> {
  const given = Object.fromEntries(Object.entries(row).filter(([, value]) => value !== undefined));
  const hex = createHash('sha256').update(JSON.stringify(given)).digest('hex');
  const known = idOf(String(row['title'] ?? ''));
  return {
    id: `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`,
    ...(known === null ? {} : { tuneId: known }),
    revision: 1,
    what: 'bite',
    drill: null,
    layer: 'tempo',
    way: 'bowed',
    wrong: null,
    minutes: 0,
    note: '',
    pain: null,
    corrects: null,
    isWithdrawn: false,
    wishBpm: given['bpm'],
    ...given,
    // Moments of other zones are kept as moments.
    at: momentOf(given['at']),
  };
}

function momentOf(value: unknown): unknown {
  const time = typeof value === 'string' ? Date.parse(value) : Number.NaN;
  return Number.isNaN(time) ? value : new Date(time).toISOString();
}
