import { type Database, inTransaction } from '../db';
import { BACKUP_FORMAT, BACKUP_TABLES, BACKUP_VERSION, KEPT_ROWS } from './tables';

/** Rows fetched at once. */
const BATCH = 200;

/**
 * The whole book as lines of JSON: a head, each row of each table, and an end with the counts, by which a file that was
 * cut off is told. All of one moment: what is saved meanwhile is not in it.
 */
export async function* backupLines(db: Database, now: Date): AsyncGenerator<string> {
  const lines = new LineQueue();
  const done = inTransaction(db, async (client) => {
    await client.query('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY');
    await lines.push(
      `${JSON.stringify({ format: BACKUP_FORMAT, version: BACKUP_VERSION, madeAt: now.toISOString() })}\n`,
    );
    const counts: Record<string, number> = {};
    for (const table of BACKUP_TABLES) {
      counts[table] = 0;
      await client.query(
        `DECLARE backup_rows NO SCROLL CURSOR FOR SELECT row_to_json(t)::text AS row FROM ${table} AS t WHERE ${KEPT_ROWS[table] ?? 'true'}`,
      );
      for (;;) {
        const { rows } = await client.query<{ row: string }>(`FETCH ${BATCH} FROM backup_rows`);
        for (const { row } of rows) await lines.push(`{"table":"${table}","row":${row}}\n`);
        counts[table] += rows.length;
        if (rows.length < BATCH) break;
      }
      await client.query('CLOSE backup_rows');
    }
    await lines.push(`${JSON.stringify({ end: true, counts })}\n`);
  }).then(
    () => lines.close(null),
    (error: unknown) => lines.close(error),
  );
  try {
    yield* lines;
  } finally {
    lines.stop();
    await done;
  }
}

/** Hands lines from the transaction that reads them to the answer that sends them, one at a time. */
class LineQueue implements AsyncIterable<string> {
  private line: string | null = null;
  private ended = false;
  private stopped = false;
  private error: unknown = null;
  private wake: () => void = () => undefined;

  async push(line: string): Promise<void> {
    while (this.line !== null && !this.stopped) await this.change();
    if (this.stopped) throw new Error('nobody reads the backup any more');
    this.line = line;
    this.wake();
  }

  close(error: unknown): void {
    this.ended = true;
    this.error = error;
    this.wake();
  }

  stop(): void {
    this.stopped = true;
    this.wake();
  }

  async *[Symbol.asyncIterator](): AsyncGenerator<string> {
    for (;;) {
      if (this.line !== null) {
        const line = this.line;
        this.line = null;
        this.wake();
        yield line;
      } else if (this.ended) {
        if (this.error !== null) throw this.error as Error;
        return;
      } else await this.change();
    }
  }

  private change(): Promise<void> {
    const before = this.wake;
    return new Promise((resolve) => {
      this.wake = () => {
        before();
        resolve();
      };
    });
  }
}
