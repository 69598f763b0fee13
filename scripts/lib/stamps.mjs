// Work that is skipped while what it depends on is unchanged.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ROOT } from './root.mjs';
import { run } from './run.mjs';

const MODULES_STAMP = join(ROOT, 'node_modules', '.morrin-stamp');
const BUILD_STAMP = join(ROOT, 'dist', '.stamp');
const BUILD_INPUTS = ['src', 'package-lock.json', 'vite.config.ts', 'index.html', 'public', 'scripts/build.mjs'];

function hashOf(paths) {
  const hash = createHash('sha256').update(process.version);
  const visit = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else hash.update(path.slice(ROOT.length)).update(readFileSync(path));
  };
  for (const path of paths) visit(join(ROOT, path));
  return hash.digest('hex');
}

const isCurrent = (stamp, hash) => existsSync(stamp) && readFileSync(stamp, 'utf8') === hash;

function keep(stamp, hash) {
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, hash);
}

/** `npm ci`, unless the lock file is the one installed from. */
export async function ensureModules() {
  const hash = hashOf(['package-lock.json', 'package.json']);
  if (isCurrent(MODULES_STAMP, hash)) return;
  console.log('Installing packages …');
  await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { stdio: ['ignore', 'ignore', 'inherit'] });
  keep(MODULES_STAMP, hash);
}

/** Builds pages and server, unless nothing changed since the last build. */
export async function ensureBuild() {
  const hash = hashOf(BUILD_INPUTS);
  if (isCurrent(BUILD_STAMP, hash)) return;
  console.log('Building …');
  await run(process.execPath, ['scripts/build.mjs'], { stdio: ['ignore', 'ignore', 'inherit'] });
  keep(BUILD_STAMP, hash);
}
