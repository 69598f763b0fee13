import { once } from 'node:events';
import { existsSync } from 'node:fs';
import { type AddressInfo, connect, createServer, type Socket } from 'node:net';
import { peerUser } from './peerUser';

const HEAD = '  sl  local_address rem_address   st tx_queue rx_queue tr tm->when retrnsmt   uid  timeout inode\n';
const row = (local: string, remote: string, uid: number) =>
  `   0: ${local} ${remote} 01 00000000:00000000 00:00000000 00000000  ${uid}        0 41208 1 0000000000000000 20 4 30 10 -1\n`;
const LOOPBACK = '0100007F';
const socket = { localPort: 4710, remotePort: 50_000, remoteFamily: 'IPv4' };
const ours = row(`${LOOPBACK}:1266`, `${LOOPBACK}:C350`, 1000);

test('the user is the one at the other end of the connection, not at this one', () => {
  const theirs = row(`${LOOPBACK}:C350`, `${LOOPBACK}:1266`, 1001);
  expect(peerUser(socket, () => HEAD + ours + theirs)).toBe(1001);
  expect(peerUser(socket, () => HEAD + theirs + ours)).toBe(1001);
});

test('where nothing is told nobody is known', () => {
  const elsewhere = row('0200A8C0:C350', `${LOOPBACK}:1266`, 1001);
  for (const table of ['', HEAD, HEAD + ours, HEAD + elsewhere, 'no table at all\n: : :\n'])
    expect(peerUser(socket, () => table)).toBeNull();
  const none = () => {
    throw new Error('ENOENT');
  };
  expect(peerUser(socket, none)).toBeNull();
});

(existsSync('/proc/net/tcp') ? test : test.skip)(
  'on this machine a connection of one’s own is told as such',
  async () => {
    const server = createServer().listen(0, '127.0.0.1');
    await once(server, 'listening');
    const client = connect((server.address() as AddressInfo).port, '127.0.0.1');
    const [accepted] = (await once(server, 'connection')) as [Socket];
    expect(peerUser(accepted)).toBe(process.getuid!());
    client.destroy();
    server.close();
  },
);
