// Packages of the operating system, installed only where they are missing.
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { run } from './run.mjs';

const POSTGRES_DIR = '/usr/lib/postgresql';
export const CHROMIUM = '/usr/bin/chromium';
/** An ABC player of its own make, against which files that are written are checked. */
const ABC_PLAYER = '/usr/bin/abc2midi';

/** A synthesizer and its sampled instruments: a fiddle from elsewhere, on which listening is tried. */
const SYNTHESIZER = '/usr/bin/fluidsynth';
export const SAMPLED_SOUNDS = '/usr/share/sounds/sf2/FluidR3_GM.sf2';

/** Folder of the newest PostgreSQL programs, or null. */
export function findPostgres() {
  if (!existsSync(POSTGRES_DIR)) return null;
  const versions = readdirSync(POSTGRES_DIR)
    .filter((name) => existsSync(join(POSTGRES_DIR, name, 'bin', 'postgres')))
    .sort((a, b) => Number(b) - Number(a));
  return versions.length > 0 ? join(POSTGRES_DIR, versions[0], 'bin') : null;
}

const IS_THERE = {
  postgresql: () => findPostgres() !== null,
  chromium: () => existsSync(CHROMIUM),
  abcmidi: () => existsSync(ABC_PLAYER),
  fluidsynth: () => existsSync(SYNTHESIZER),
  'fluid-soundfont-gm': () => existsSync(SAMPLED_SOUNDS),
};

/** Sees that packages are there, all that are missing in one go; names as Debian has them. */
export async function ensurePackages(names) {
  const missing = names.filter((name) => !IS_THERE[name]());
  if (missing.length === 0) return;
  if (process.getuid?.() !== 0)
    throw new Error(
      `Missing: ${missing.join(', ')}. Install once with:\n\n  sudo apt-get install --no-install-recommends ${missing.join(' ')}\n`,
    );
  console.log(`Installing ${missing.join(', ')} …`);
  if (missing.includes('postgresql')) keepDebianFromStartingACluster();
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const quiet = { env, stdio: ['ignore', 'ignore', 'inherit'] };
  await run('apt-get', ['update', '-qq'], quiet);
  // Keep a configuration file that is already there instead of asking.
  await run(
    'apt-get',
    ['install', '-y', '-qq', '--no-install-recommends', '-o', 'Dpkg::Options::=--force-confold', ...missing],
    quiet,
  );
}

export async function ensurePostgres() {
  await ensurePackages(['postgresql']);
  const found = findPostgres();
  if (!found) throw new Error('PostgreSQL was installed but its programs were not found under /usr/lib/postgresql.');
  return found;
}

/** Without this Debian starts a cluster of its own, which nothing here uses. */
function keepDebianFromStartingACluster() {
  const file = '/etc/postgresql-common/createcluster.conf';
  if (existsSync(file) && /create_main_cluster\s*=/.test(readFileSync(file, 'utf8'))) return;
  mkdirSync('/etc/postgresql-common', { recursive: true });
  writeFileSync(file, 'create_main_cluster = false\n', { flag: 'a' });
}
