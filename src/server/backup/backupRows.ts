import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import { z } from 'zod';
import { viewQuerySchema } from '#contract/book';
import { tunePracticeSchema } from '#contract/log';
import { pegsRecordSchema } from '#contract/pegs';
import { setsSchema } from '#contract/sets';
import { settingsRecordSchema } from '#contract/settings';
import { tuneSchema } from '#formats/json';
import { AppError } from '../errors';
import { BACKUP_FORMAT, BACKUP_TABLES, BACKUP_VERSION, type BackupTable, IN_IT_SINCE, UPGRADES } from './tables';

const headSchema = z.object({ format: z.literal(BACKUP_FORMAT), version: z.int().min(1), madeAt: z.iso.datetime() });
const rowSchema = z.object({ table: z.enum(BACKUP_TABLES), row: z.record(z.string(), z.unknown()) });
const sectionSchema = z.object({ section: z.enum(BACKUP_TABLES), rows: z.int().min(0), sha256: z.string() });
const endSchema = z.object({ end: z.literal(true), counts: z.record(z.string(), z.int()) });

/** Documents inside rows; the rest of a row is held to its columns by the database. */
const DOCUMENTS: Partial<Record<BackupTable, { readonly column: string; readonly schema: z.ZodType }>> = {
  tunes: { column: 'document', schema: tuneSchema },
  tune_revisions: { column: 'document', schema: tuneSchema },
  tune_versions: { column: 'document', schema: tuneSchema },
  player_settings: { column: 'document', schema: settingsRecordSchema.shape.settings },
  pegs: { column: 'document', schema: pegsRecordSchema.shape.pegs },
  sets: { column: 'document', schema: setsSchema },
  tune_practice: { column: 'document', schema: tunePracticeSchema },
  book_views: { column: 'query', schema: viewQuerySchema },
};

/** A row of a backup as this version has it, with the line on which it stands. */
export interface BackupRow {
  readonly table: BackupTable;
  readonly row: Record<string, unknown>;
  readonly line: number;
}

/**
 * The rows of a backup of this version or one before it, one by one. Its head and end, the documents in the rows, their counts
 * and, where it has them, the sums of its sections are held against what they should be.
 * @param options `documents`: whether those in the rows are looked at too, which is most of the time; not for a file that was
 * just gone through, or just written here
 * @throws AppError `bad-backup` with the line that was not as expected; what was given before is then worth nothing
 */
export async function* backupRows(
  input: Readable,
  { documents = true }: { readonly documents?: boolean } = {},
): AsyncGenerator<BackupRow> {
  const counts = new Map<BackupTable, number>();
  const isSummed = new Set<BackupTable>();
  let version = 0;
  let sum = createHash('sha256');
  let summed = 0;
  let number = 0;
  let end: z.output<typeof endSchema> | null = null;
  for await (const line of linesOf(input)) {
    number += 1;
    if (line === '') continue;
    const value = jsonOf(line, number);
    if (version === 0) {
      version = refuseUnless(headSchema.safeParse(value), number, 'the head of a Morrin backup').version;
      if (version > BACKUP_VERSION)
        throw badBackup(
          number,
          `a backup of version ${BACKUP_VERSION} or older: this one, of version ${version}, was made by a newer Morrin`,
        );
      continue;
    }
    if (end) throw badBackup(number, 'nothing after the end');
    const section = sectionSchema.safeParse(value);
    if (section.success) {
      const { section: table, rows, sha256 } = section.data;
      if (rows !== summed || sha256 !== sum.digest('hex'))
        throw badBackup(number, `the rows of ${table} as they were written: the file is damaged above this line`);
      isSummed.add(table);
      [sum, summed] = [createHash('sha256'), 0];
      continue;
    }
    const last = endSchema.safeParse(value);
    if (last.success) {
      end = last.data;
      continue;
    }
    const { table, row } = refuseUnless(rowSchema.safeParse(value), number, 'a row of a known table');
    sum.update(`${line}\n`);
    summed += 1;
    counts.set(table, (counts.get(table) ?? 0) + 1);
    const upgraded = upgradedRow(table, row, version);
    if (documents) checkDocument(table, upgraded, number);
    yield { table, row: upgraded, line: number };
  }
  if (!end) throw badBackup(number, 'the end of the backup: the file was cut off');
  for (const table of BACKUP_TABLES) {
    if ((end.counts[table] ?? 0) !== (counts.get(table) ?? 0))
      throw badBackup(number, `${end.counts[table] ?? 0} rows of ${table}, found ${counts.get(table) ?? 0}`);
    if (version >= Math.max(2, IN_IT_SINCE[table] ?? 0) && !isSummed.has(table))
      throw badBackup(number, `the sum of ${table} before the end`);
  }
}

/** A backup gone through to its end without keeping anything of it. */
export async function verifyBackup(
  input: Readable,
  options: { readonly documents?: boolean } = {},
): Promise<{ readonly tunes: number; readonly rows: number }> {
  let [tunes, rows] = [0, 0];
  for await (const { table } of backupRows(input, options)) {
    rows += 1;
    if (table === 'tunes') tunes += 1;
  }
  return { tunes, rows };
}

function upgradedRow(table: BackupTable, row: Record<string, unknown>, from: number): Record<string, unknown> {
  let upgraded = row;
  for (let version = from; version < BACKUP_VERSION; version++)
    upgraded = UPGRADES[version]?.(table, upgraded) ?? upgraded;
  return upgraded;
}

/** The lines of a stream; unlike the one of Node it ends with the stream's own error. */
async function* linesOf(input: Readable): AsyncGenerator<string> {
  input.setEncoding('utf8');
  let rest = '';
  for await (const chunk of input) {
    const parts = (rest + (chunk as string)).split('\n');
    rest = parts.pop()!;
    yield* parts;
  }
  yield rest;
}

function checkDocument(table: BackupTable, row: Record<string, unknown>, line: number): void {
  const document = DOCUMENTS[table];
  if (!document) return;
  const parsed = document.schema.safeParse(row[document.column]);
  if (parsed.success) return;
  const { path, message } = parsed.error.issues[0]!;
  throw badBackup(line, `a ${table} row: ${path.join('.')}: ${message}`);
}

function jsonOf(line: string, number: number): unknown {
  try {
    return JSON.parse(line);
  } catch {
    throw badBackup(number, 'a line of JSON');
  }
}

function refuseUnless<T>(parsed: { success: true; data: T } | { success: false }, line: number, expected: string): T {
  if (!parsed.success) throw badBackup(line, expected);
  return parsed.data;
}

export function badBackup(line: number, expected: string): AppError {
  return new AppError('bad-backup', [{ path: `line ${line}`, message: `expected ${expected}` }]);
}
