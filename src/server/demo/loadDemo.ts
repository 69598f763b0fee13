import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { readAbc } from '#formats/abc';
import { playerSettings } from '#contract/settings';
import { type Database, inTransaction } from '../db';
import { savePegs } from '../pegs/queries';
import { demoPegs } from './demoPegs';
import { findSettings } from '../settings/queries';
import { countTunes, insertSource, insertTune } from '../tunes/queries';

/** Loads the demo tunes and a fiddle into an empty book; leaves any other book alone. Returns how many were loaded. */
export async function loadDemo(db: Database, demoDir: string): Promise<number> {
  if ((await countTunes(db)) > 0) return 0;
  const files = readdirSync(demoDir)
    .filter((file) => file.endsWith('.abc'))
    .sort();
  let loaded = 0;
  await inTransaction(db, async (client) => {
    // Fiddles that are kept already are left alone.
    await savePegs(client, 0, demoPegs(Date.now()));
    const settings = playerSettings((await findSettings(client)).settings);
    for (const file of files)
      for (const { tune, source } of readAbc(readFileSync(path.join(demoDir, file), 'utf8')).tunes) {
        const id = idFor(`${file} ${tune.title}`);
        await insertTune(client, id, tune, settings);
        await insertSource(client, id, file, source);
        loaded += 1;
      }
  });
  return loaded;
}

/** The same demo tune has the same address on every machine (a name-based UUID, version 8). */
function idFor(name: string): string {
  const hex = createHash('sha256').update(name).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}
