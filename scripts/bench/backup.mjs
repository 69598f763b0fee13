import { performance } from 'node:perf_hooks';
import pg from 'pg';
import { fillBook } from '../../src/server/testBook.ts';
import { startTestServer } from '../lib/testServer.mjs';

const TUNES = 600;
/** Goes each way so often; the middle one counts. */
const TIMES = 3;
const MAX_READS = 5;
const MAX_OUTS = 20;

const middle = (times) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];

/** A book out and back in, against reading the same rows once. */
export async function benchBackup() {
  const { url, databaseUrl, stop } = await startTestServer('bench_backup');
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    await fillBook(client, TUNES);
    // Whole tunes in place of stand-ins.
    await client.query(
      `UPDATE tunes SET document = demo.document
         FROM (SELECT document, row_number() OVER (ORDER BY id) - 1 AS k, count(*) OVER () AS of FROM tunes WHERE document ? 'parts') AS demo
        WHERE NOT tunes.document ? 'parts' AND demo.k = (tunes.document ->> 'n')::integer % demo.of`,
    );
    await client.query(
      'INSERT INTO tune_revisions (tune_id, revision, document) SELECT id, n, document FROM tunes, generate_series(1, 2) AS n ON CONFLICT DO NOTHING',
    );
    const [reads, outs, backs] = [[], [], []];
    const timed = async (into, work) => {
      const begun = performance.now();
      const result = await work();
      into.push(performance.now() - begun);
      return result;
    };
    for (let time = 0; time < TIMES; time++) {
      await timed(reads, async () => {
        for (const table of ['tunes', 'tune_revisions', 'tune_prints', 'tune_sources'])
          await client.query(`SELECT row_to_json(t)::text FROM ${table} AS t`);
      });
      const file = await timed(outs, async () => (await fetch(`${url}/api/backup`)).blob());
      await timed(backs, async () => {
        const response = await fetch(`${url}/api/backup`, { method: 'POST', body: file });
        if (!response.ok) throw new Error(`The backup was not taken back: ${await response.text()}`);
      });
    }
    const [read, out, back] = [reads, outs, backs].map(middle);
    return [
      {
        what: `Backup of ${TUNES.toLocaleString('en')} tunes, packed and summed`,
        against: 'the same rows read at once',
        ratio: (out / read).toFixed(2),
        bar: `at most ${MAX_READS}`,
        ms: `${out.toFixed(0)} / ${read.toFixed(0)}`,
        holds: out <= MAX_READS * read,
      },
      {
        what: 'The same taken back: gone through, a copy made before, all made anew',
        against: 'the backup',
        ratio: (back / out).toFixed(2),
        bar: `at most ${MAX_OUTS}`,
        ms: `${back.toFixed(0)} / ${out.toFixed(0)}`,
        holds: back <= MAX_OUTS * out,
      },
    ];
  } finally {
    await client.end();
    await stop();
  }
}
