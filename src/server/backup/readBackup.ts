import { randomInt } from 'node:crypto';
import type { Readable } from 'node:stream';
import { playerSettings, settingsSchema } from '#contract/settings';
import { DEFAULT_REGION } from '#core/tempo';
import type { Tune } from '#core/tune';
import { type Database, inTransaction, type Queryable } from '../db';
import { headColumns } from '../tunes/tuneHead';
import { type BackupRow, backupRows, badBackup } from './backupRows';
import { BACKUP_TABLES, type BackupTable, REVISED_TABLES } from './tables';

const REVISED: ReadonlySet<BackupTable> = new Set(REVISED_TABLES);
/** Rows put in at once. */
const BATCH = 100;
/** By how much revisions are moved, so that no save of before can name one. */
const MIN_MOVE = 1000;
const MAX_MOVE = 100_000;

/**
 * Puts a backup in the place of everything there is, all of it or nothing, in one transaction that waits for nothing but the
 * database. What follows from a document is made from it anew; a column that the backup does not have yet is as usual, one
 * that this version does not know is refused. Revisions are moved by a number that nobody can guess.
 * @param input the lines of a backup that was gone through before: what is slow to come is not waited for here
 * @throws AppError `bad-backup` with the line that was not as expected; the book is then as it was
 */
export function readBackup(db: Database, input: Readable): Promise<{ tunes: number; rows: number }> {
  return inTransaction(
    db,
    async (client) => {
      await client.query(`TRUNCATE ${BACKUP_TABLES.join(', ')}, import_tunes, book_words, answered_requests CASCADE`);
      const columns = await columnsOf(client);
      const by = randomInt(MIN_MOVE, MAX_MOVE);
      let [tunes, rows] = [0, 0];
      let bands = DEFAULT_REGION;
      let batch: BackupRow[] = [];
      const flush = async () => {
        if (batch.length > 0) await insertRows(client, batch, columns);
        batch = [];
      };
      for await (const read of backupRows(input, { documents: false })) {
        const { table, row } = read;
        if (table === 'player_settings') bands = playerSettings(settingsSchema.parse(row.document)).bands;
        const [first] = batch;
        if (first && (first.table !== table || batch.length >= BATCH || !haveSameFields(first.row, row))) await flush();
        if (REVISED.has(table) && typeof row.revision === 'number') row.revision += by;
        if (table === 'tunes') Object.assign(row, headColumns(row.document as Tune, { bands }));
        batch.push(read);
        rows += 1;
        if (table === 'tunes') tunes += 1;
      }
      await flush();
      return { tunes, rows };
    },
    1,
  );
}

async function columnsOf(client: Queryable): Promise<ReadonlyMap<string, ReadonlySet<string>>> {
  const { rows } = await client.query<{ table: string; columns: string[] }>(
    `SELECT table_name AS table, array_agg(column_name::text) AS columns FROM information_schema.columns
      WHERE table_schema = current_schema() AND table_name = ANY($1) GROUP BY table_name`,
    [BACKUP_TABLES],
  );
  return new Map(rows.map(({ table, columns }) => [table, new Set(columns)]));
}

function haveSameFields(a: object, b: object): boolean {
  const [one, other] = [Object.keys(a), Object.keys(b)];
  return one.length === other.length && one.every((name) => name in b);
}

/** Rows of one table with the same fields. */
async function insertRows(
  client: Queryable,
  batch: readonly BackupRow[],
  columns: ReadonlyMap<BackupTable | string, ReadonlySet<string>>,
): Promise<void> {
  const { table, row: first, line } = batch[0]!;
  const names = Object.keys(first);
  const unknown = names.filter((name) => !columns.get(table)!.has(name));
  if (unknown.length > 0)
    throw badBackup(line, `only what this version keeps of ${table}, found ${unknown.join(', ')}`);
  const list = names.map((name) => `"${name}"`).join(', ');
  try {
    await client.query(
      `INSERT INTO ${table} (${list}) SELECT ${list} FROM jsonb_populate_recordset(NULL::${table}, $1::jsonb)`,
      [JSON.stringify(batch.map(({ row }) => row))],
    );
  } catch (error) {
    // What the columns refuse (SQLSTATE classes 22 and 23) is the file's fault.
    const { code, message } = error as { code?: string; message: string };
    if (code && /^2[23]/.test(code)) throw badBackup(line, `rows that fit ${table}: ${message}`);
    throw error;
  }
}
