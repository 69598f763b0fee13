import { readdirSync, readFileSync } from 'node:fs';

/** The words with which a process was started; none where it ended. */
export function commandLine(id: number): string {
  try {
    return readFileSync(`/proc/${id}/cmdline`, 'utf8');
  } catch {
    return '';
  }
}

/** Processes that were started with a text, such as the name of a folder that is this test's alone. */
export function processesWith(text: string): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((id) => commandLine(id).includes(text));
}

export function kill(...ids: readonly number[]): void {
  for (const id of ids)
    try {
      process.kill(id, 'SIGKILL');
    } catch {
      // It ended by itself.
    }
}
