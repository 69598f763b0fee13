import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { readAbc } from '#formats/abc';
import { type Database, inTransaction } from '../db';
import type { Jobs } from '../jobs/jobs';
import { insertAttempts, saveTunePractice } from '../log/queries';
import { savePegs } from '../pegs/queries';
import { saveSets } from '../sets/queries';
import { countNow } from '../tunes/countNow';
import { countTunes, insertSource, insertTune } from '../tunes/queries';
import { demoAttempts, demoPractice, type DemoTune } from './demoLog';
import { demoPegs } from './demoPegs';
import { demoSets } from './demoSets';

/** An empty book is filled by one at a time: a lock held to the end of the transaction. */
const DEMO_LOCK = 4_710_003;

/** Loads the demo tunes and a fiddle into an empty book; leaves any other book alone. Returns how many were loaded. */
export async function loadDemo(db: Database, jobs: Jobs, demoDir: string): Promise<number> {
  if ((await countTunes(db)) > 0) return 0;
  const files = readdirSync(demoDir)
    .filter((file) => file.endsWith('.abc'))
    .sort();
  const read = files.flatMap((file) =>
    readAbc(readFileSync(path.join(demoDir, file), 'utf8')).tunes.map(({ tune, source }) => ({ file, tune, source })),
  );
  const documents = read.map(({ tune }) => JSON.stringify(tune));
  const counted = await countNow(db, jobs, documents, jobs.countTunes);
  return inTransaction(db, async (client) => {
    await client.query('SELECT pg_advisory_xact_lock($1)', [DEMO_LOCK]);
    if ((await countTunes(client)) > 0) return 0;
    // Fiddles that are kept already are left alone.
    await savePegs(client, 0, demoPegs(Date.now()));
    const ids = read.map(({ file, tune }) => idFor(`${file} ${tune.title}`));
    await saveSets(
      client,
      0,
      demoSets((file) => ids[read.findIndex((own) => own.file === file)]!),
    );
    for (const [i, { file, source }] of read.entries()) {
      const id = ids[i]!;
      await insertTune(client, id, counted[i]!);
      await insertSource(client, id, file, source);
    }
    const tunes = read.map(({ file, tune }, i): DemoTune => ({ file, tune, id: ids[i]! }));
    await insertAttempts(client, demoAttempts(tunes, new Date()));
    const reel = tunes.find(({ file }) => file === 'heron.abc');
    if (reel) await saveTunePractice(client, reel.id, 0, demoPractice(reel));
    return read.length;
  });
}

/** The same demo tune has the same address on every machine (a name-based UUID, version 8). */
function idFor(name: string): string {
  const hex = createHash('sha256').update(name).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}
