// One running copy per folder: a file with the process and address of the one that runs.
import { closeSync, existsSync, mkdirSync, openSync, readFileSync, rmSync, writeFileSync, writeSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ROOT } from './root.mjs';

const LOCK = join(ROOT, '.data', 'start.lock');

/** Takes the lock, or tells who has it. A lock whose process is gone is taken over. */
export function takeLock() {
  mkdirSync(dirname(LOCK), { recursive: true });
  for (let tries = 0; tries < 3; tries++) {
    try {
      const file = openSync(LOCK, 'wx');
      writeSync(file, JSON.stringify({ pid: process.pid }));
      closeSync(file);
      return { ok: true };
    } catch {
      const holder = readLock();
      if (holder && isOurs(holder.pid)) return { ok: false, ...holder };
      rmSync(LOCK, { force: true });
    }
  }
  throw new Error(`${LOCK} cannot be taken.`);
}

export function noteAddress(url) {
  writeFileSync(LOCK, JSON.stringify({ pid: process.pid, url }));
}

export function releaseLock() {
  if (readLock()?.pid === process.pid) rmSync(LOCK, { force: true });
}

function readLock() {
  try {
    return JSON.parse(readFileSync(LOCK, 'utf8'));
  } catch {
    return null;
  }
}

/** Whether a process is alive and is a start of this program, not another that got its number. */
function isOurs(pid) {
  try {
    process.kill(pid, 0);
  } catch {
    return false;
  }
  const folder = `/proc/${pid}`;
  if (!existsSync('/proc/self/cmdline')) return true;
  return existsSync(folder) && readFileSync(`${folder}/cmdline`, 'utf8').includes('start.mjs');
}
