import { existsSync, readdirSync, readFileSync } from 'node:fs';
import pg from 'pg';
import { ERROR_CODES } from '#contract/errors';
import { ERRORS } from './errors';
import { emptyDatabase, migrateByCommand } from './testApp';

const MIGRATIONS = 'db/migrations';

test('every error code has a status, words, and a line in docs/errors.md, and the page names no other', () => {
  const documented = [...readFileSync('docs/errors.md', 'utf8').matchAll(/^\| `([a-z-]+)`/gm)].map(([, code]) => code);
  expect(documented.sort()).toEqual([...ERROR_CODES].sort());
  expect(Object.keys(ERRORS).sort()).toEqual([...ERROR_CODES].sort());
});

test('every folder of the core, and every layer, is on the map', () => {
  const map = readFileSync('docs/map.md', 'utf8');
  const folders = readdirSync('src/core', { withFileTypes: true }).filter((entry) => entry.isDirectory());
  for (const { name } of folders) expect(map).toContain(`core/${name}`);
  for (const layer of ['core', 'formats', 'contract', 'words', 'server', 'web', 'cli'])
    expect(map).toContain(`src/${layer}`);
});

test('every core folder but the test helpers has its door', () => {
  for (const { name } of readdirSync('src/core', { withFileTypes: true }).filter((entry) => entry.isDirectory()))
    if (name !== 'testing') expect(existsSync(`src/core/${name}/index.ts`)).toBe(true);
});

test('migrations are numbered without a gap, say why, run on an empty database, twice and side by side harmlessly', async () => {
  const files = readdirSync(MIGRATIONS).sort();
  expect(files.map((file) => Number(file.slice(0, 4)))).toEqual(files.map((_, i) => i + 1));
  for (const file of files) expect(readFileSync(`${MIGRATIONS}/${file}`, 'utf8')).toMatch(/^-- Up Migration\n-- \S/);
  const url = await emptyDatabase('migrations');
  await Promise.all([migrateByCommand(url), migrateByCommand(url)]);
  await migrateByCommand(url);
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const { rows } = await client.query('SELECT count(*)::integer AS count FROM migrations');
  await client.end();
  expect(rows[0]).toEqual({ count: files.length });
}, 30_000);
