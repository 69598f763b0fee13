import type { Readable } from 'node:stream';
import { z } from 'zod';
import { settingsRecordSchema } from '#contract/settings';
import { pegsRecordSchema } from '#contract/pegs';
import { viewQuerySchema } from '#contract/book';
import { tuneSchema } from '#formats/json';
import { type Database, type Queryable, inTransaction } from '../db';
import { AppError } from '../errors';
import { BACKUP_FORMAT, BACKUP_TABLES, BACKUP_VERSION, type BackupTable } from './tables';

/** Rows put in at once. */
const BATCH = 100;

const headSchema = z.object({
  format: z.literal(BACKUP_FORMAT),
  version: z.literal(BACKUP_VERSION),
  madeAt: z.iso.datetime(),
});
const rowSchema = z.object({ table: z.enum(BACKUP_TABLES), row: z.record(z.string(), z.unknown()) });
const endSchema = z.object({ end: z.literal(true), counts: z.record(z.string(), z.int()) });

/** Documents inside rows; the rest of a row is held to its columns by the database. */
const DOCUMENTS: Partial<Record<BackupTable, { readonly column: string; readonly schema: z.ZodType }>> = {
  tunes: { column: 'document', schema: tuneSchema },
  tune_revisions: { column: 'document', schema: tuneSchema },
  tune_versions: { column: 'document', schema: tuneSchema },
  player_settings: { column: 'document', schema: settingsRecordSchema.shape.settings },
  pegs: { column: 'document', schema: pegsRecordSchema.shape.pegs },
  book_views: { column: 'query', schema: viewQuerySchema },
};

/**
 * Puts a backup in the place of everything there is, all of it or nothing.
 * @throws AppError `bad-backup` with the line that was not as expected; the book is then as it was
 */
export function readBackup(db: Database, input: Readable): Promise<{ tunes: number; rows: number }> {
  return inTransaction(db, async (client) => {
    await client.query(`TRUNCATE ${BACKUP_TABLES.join(', ')}, bulk_changes, import_tunes, book_words CASCADE`);
    const counts = new Map<BackupTable, number>();
    let number = 0;
    let end: z.output<typeof endSchema> | null = null;
    let batch: { table: BackupTable; rows: object[] } | null = null;
    const flush = async () => {
      if (batch) await insertRows(client, batch.table, batch.rows, number);
      batch = null;
    };
    for await (const line of linesOf(input)) {
      number += 1;
      if (line === '') continue;
      const value = jsonOf(line, number);
      if (number === 1) {
        refuseUnless(headSchema.safeParse(value), number, 'the head of a Morrin backup');
        continue;
      }
      if (end) throw badBackup(number, 'nothing after the end');
      const last = endSchema.safeParse(value);
      if (last.success) {
        end = last.data;
        continue;
      }
      const { table, row } = refuseUnless(rowSchema.safeParse(value), number, 'a row of a known table');
      checkDocument(table, row, number);
      if (batch && (batch.table !== table || batch.rows.length >= BATCH)) await flush();
      batch ??= { table, rows: [] };
      batch.rows.push(row);
      counts.set(table, (counts.get(table) ?? 0) + 1);
    }
    await flush();
    if (!end) throw badBackup(number, 'the end of the backup: the file was cut off');
    for (const table of BACKUP_TABLES)
      if ((end.counts[table] ?? 0) !== (counts.get(table) ?? 0))
        throw badBackup(number, `${end.counts[table] ?? 0} rows of ${table}, found ${counts.get(table) ?? 0}`);
    return { tunes: counts.get('tunes') ?? 0, rows: [...counts.values()].reduce((sum, count) => sum + count, 0) };
  });
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

async function insertRows(client: Queryable, table: BackupTable, rows: readonly object[], line: number): Promise<void> {
  try {
    await client.query(`INSERT INTO ${table} SELECT * FROM jsonb_populate_recordset(NULL::${table}, $1::jsonb)`, [
      JSON.stringify(rows),
    ]);
  } catch (error) {
    // What the columns refuse (SQLSTATE classes 22 and 23) is the file's fault.
    const { code, message } = error as { code?: string; message: string };
    if (code && /^2[23]/.test(code)) throw badBackup(line, `rows that fit ${table}: ${message}`);
    throw error;
  }
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

function badBackup(line: number, expected: string): AppError {
  return new AppError('bad-backup', [{ path: `line ${line}`, message: `expected ${expected}` }]);
}
