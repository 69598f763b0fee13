import { createHash } from 'node:crypto';
import { setImmediate as othersTurn } from 'node:timers/promises';
import { type Database, openClient } from '../db';
import { BACKUP_FORMAT, BACKUP_TABLES, BACKUP_VERSION, KEPT_ROWS } from './tables';

/** Rows fetched at once: as many as have about so many letters, judged by those before. */
const MAX_ROWS = 200;
const FIRST_ROWS = 1;
const LETTERS = 250_000;
/** Bytes that are summed and sent in one go: a file that was imported is one row of up to 20 MB, and nobody waits for all of it. */
const PIECE_BYTES = 1 << 18;

/**
 * The whole book as lines of JSON: a head, each row of each table with the sum of them after it, and an end with the counts,
 * by which a file that was cut off or damaged is told. All of one moment: what is saved meanwhile is not in it. Rows are read as they are sent, so memory holds
 * one batch of them however many there are; a reader that goes away ends the reading.
 * Time O(n) for n rows.
 */
export async function* backupLines(db: Database, now: Date): AsyncGenerator<string | Uint8Array> {
  const { client, lost, release } = await openClient(db);
  let isDone = false;
  try {
    await client.query('BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY');
    yield `${JSON.stringify({ format: BACKUP_FORMAT, version: BACKUP_VERSION, madeAt: now.toISOString() })}\n`;
    const counts: Record<string, number> = {};
    for (const table of BACKUP_TABLES) {
      counts[table] = 0;
      const sum = createHash('sha256');
      await client.query(
        `DECLARE backup_rows NO SCROLL CURSOR FOR SELECT row_to_json(t)::text AS row FROM ${table} AS t WHERE ${KEPT_ROWS[table] ?? 'true'}`,
      );
      for (let asked = FIRST_ROWS; ;) {
        const { rows } = await client.query<{ row: string }>(`FETCH ${asked} FROM backup_rows`);
        if (rows.length > 0) {
          const lines = Buffer.from(rows.map(({ row }) => `{"table":"${table}","row":${row}}\n`).join(''));
          for (let at = 0; at < lines.length; at += PIECE_BYTES) {
            await othersTurn();
            const piece = lines.subarray(at, at + PIECE_BYTES);
            sum.update(piece);
            yield piece;
          }
        }
        counts[table] += rows.length;
        if (rows.length < asked) break;
        const mean = rows.reduce((sum, { row }) => sum + row.length, 0) / rows.length;
        asked = Math.max(1, Math.min(MAX_ROWS, Math.floor(LETTERS / mean)));
      }
      await client.query('CLOSE backup_rows');
      yield `${JSON.stringify({ section: table, rows: counts[table], sha256: sum.digest('hex') })}\n`;
    }
    await client.query('COMMIT');
    isDone = true;
    yield `${JSON.stringify({ end: true, counts })}\n`;
  } finally {
    if (!isDone) await client.query('ROLLBACK').catch(lost);
    release();
  }
}
