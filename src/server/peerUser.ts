import { readFileSync } from 'node:fs';
import type { Socket } from 'node:net';

/** Where Linux tells every TCP connection with the user who has its socket (`proc_pid_net(5)`). */
const TABLES = { IPv4: '/proc/net/tcp', IPv6: '/proc/net/tcp6' } as const;
/** Columns of these tables. */
const [LOCAL, REMOTE, UID] = [1, 2, 7];

/** `7F000001:1F90` → address as the system writes it, and port. */
const portOf = (column: string) => parseInt(column.slice(column.lastIndexOf(':') + 1), 16);
const hostOf = (column: string) => column.slice(0, column.lastIndexOf(':'));

/**
 * The number of the user of this machine at the other end of a connection; null where that is not told: it comes from
 * another machine, or this system has no such table.
 * @param read gives a table's text; throws where there is none
 */
export function peerUser(
  { localPort, remotePort, remoteFamily }: Pick<Socket, 'localPort' | 'remotePort' | 'remoteFamily'>,
  read: (file: string) => string = (file) => readFileSync(file, 'utf8'),
): number | null {
  const files = remoteFamily === 'IPv6' ? [TABLES.IPv6, TABLES.IPv4] : [TABLES.IPv4, TABLES.IPv6];
  for (const file of files) {
    let lines: string[];
    try {
      lines = read(file).split('\n').slice(1);
    } catch {
      continue;
    }
    for (const line of lines) {
      const columns = line.trim().split(/\s+/);
      const [local, remote] = [columns[LOCAL!] ?? '', columns[REMOTE!] ?? ''];
      // The other end’s own row: from its port to ours, both on the same address of this machine.
      if (portOf(local) !== remotePort || portOf(remote) !== localPort || hostOf(local) !== hostOf(remote)) continue;
      const uid = Number(columns[UID!]);
      return Number.isInteger(uid) ? uid : null;
    }
  }
  return null;
}
