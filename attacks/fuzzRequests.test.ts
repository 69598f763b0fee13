import { readFileSync } from 'node:fs';
import { DEFAULT_PEGS } from '#contract/pegs';
import { DEFAULT_SETTINGS } from '#contract/settings';
import { randomScore } from '../src/core/testing/scores';
import { seeded } from '../src/core/testing/tunes';
import { type RunningServer, startServer } from './running';

declare const TEST_SHARE: number;
const REQUESTS = TEST_SHARE === 1 ? 20_000 : 1_000;
/** Beside other work everything takes longer. */
const MAX_MS = TEST_SHARE === 1 ? 2_000 : 6_000;
/** Share by which the server may have grown in the second half, and what it may have in any case. */
const MAX_GROWTH = 1.2;
const FREE_MB = 60;

let server: RunningServer;
beforeAll(async () => {
  server = await startServer('fuzz_requests', { MORRIN_DEMO: '1', MORRIN_LOG: 'error' });
}, 60_000);
afterAll(() => server.stop());

const ODD_VALUES: readonly unknown[] = [
  null,
  -1,
  0,
  1e308,
  2 ** 53,
  NaN,
  '',
  ' ',
  '\0',
  '\ud800',
  'x'.repeat(5000),
  [],
  {},
  [[]],
  true,
  '../..',
  "'; DROP TABLE tunes; --",
  '2026-13-45',
  { toString: 1 },
  '__proto__',
  1.5,
];

/** A value with something in it replaced, taken out or put in. */
function odd(value: unknown, random: () => number): unknown {
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
  if (random() < 0.08 || value === null || typeof value !== 'object') return pick(ODD_VALUES);
  const keys = Object.keys(value);
  if (keys.length === 0) return pick(ODD_VALUES);
  const copy = (Array.isArray(value) ? [...(value as unknown[])] : { ...value }) as Record<string, unknown>;
  const key = pick(keys);
  if (random() < 0.1) delete copy[key];
  else if (random() < 0.1) copy[pick(['id', 'x', '__proto__', 'constructor', key])] = pick(ODD_VALUES);
  else copy[key] = odd(copy[key], random);
  return copy;
}

const memoryMb = () =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.child.pid}/status`, 'utf8'))![1]) / 1024;

test('requests that are almost right are answered at once and in words, and nothing grows', async () => {
  const random = seeded(4711);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
  const listed = (await (await fetch(`${server.url}/api/book/tunes`)).json()) as { tunes: { id: string }[] };
  const ids = [...listed.tunes.map(({ id }) => id), 'x', '7c5e2f5e-0000-4000-8000-000000000000', '%00', '..'];
  const tunes = Array.from({ length: 12 }, (_, i) => randomScore(i + 1));
  const filters = [
    'words=heron',
    'words=%00',
    'words=&after=x',
    `words=${'w'.repeat(400)}`,
    'notes=d+f%23',
    'notes=zz',
    'limit=200',
    'limit=1e9',
    'sort=best',
    'after=W10',
    `after=${Buffer.from('[1]').toString('base64url')}`,
    'type=reel&key=D+major',
    'tag=%27',
    'removed=yes',
  ];
  const requests: (() => [method: string, path: string, body?: unknown])[] = [
    () => ['GET', `/api/book/tunes?${pick(filters)}&${pick(filters)}`],
    () => ['GET', `/api/book/count?${pick(filters)}`],
    () => [
      'GET',
      pick([
        '/api/book/facets',
        '/api/book/counting',
        '/api/book/size',
        '/api/book/views',
        '/api/settings',
        '/api/pegs',
        '/api/backup/copies',
        '/api/none',
        '/assets/none.js',
        '/%E0%A4%A',
      ]),
    ],
    () => [
      'GET',
      `/api/tunes/${pick(ids)}${pick(['', '/source', '/versions', '/revisions', '/revisions/1', '/revisions/99999999999'])}`,
    ],
    () => ['GET', `/api/likenesses/${pick(ids)}`],
    () => ['POST', '/api/tunes', { tunes: [{ tune: pick(tunes), source: 'x' }], fileName: 'a.abc' }],
    () => ['PUT', `/api/tunes/${pick(ids)}`, { baseRevision: pick([1, 2, 3]), tune: pick(tunes) }],
    () => ['POST', `/api/tunes/${pick(ids)}/versions`, { name: 'Plain', tune: pick(tunes) }],
    () => [
      'PATCH',
      `/api/tunes/${pick(ids)}/versions/${pick(ids)}`,
      { baseRevision: 1, name: 'x', kind: 'plan', taughtBy: '', learnedOn: null, note: '' },
    ],
    () => [
      'POST',
      '/api/book/changes',
      {
        choice: pick([{ ids: ids.slice(0, 2) }, { filter: { words: 'heron' } }]),
        deed: pick([
          { kind: 'tag', tag: 'a' },
          { kind: 'untag', tag: 'a' },
          { kind: 'practised', at: '2026-01-01T00:00:00.000Z' },
        ]),
      },
    ],
    () => ['POST', `/api/book/changes/${pick(ids)}/undo`],
    () => ['POST', '/api/book/views', { name: pick(['Reels', 'Jigs']), query: { type: 'reel', sort: 'tempo' } }],
    () => [
      'POST',
      '/api/export',
      { format: pick(['abc', 'midi', 'musicxml', 'json', 'csv']), choice: { ids: ids.slice(0, 2) } },
    ],
    () => ['POST', '/api/likenesses', { melodies: [{ print: [1, 2, 3], pitches: [60, 62, 64] }] }],
    () => [
      'POST',
      '/api/handout/pdf',
      {
        title: 'x',
        paper: 'a4',
        pages: ['<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><path d="M0 0L9 9"/></svg>'],
      },
    ],
    () => ['POST', '/api/imports', { fileName: 'a.abc' }],
    () => ['PUT', `/api/imports/${pick(ids)}/tunes`, { from: 0, tunes: [{ tune: pick(tunes) }] }],
    () => ['POST', `/api/imports/${pick(ids)}/finish`, { expected: 1, leftOut: [], joins: [] }],
    () => ['PUT', '/api/settings', { baseRevision: pick([0, 1, 2]), settings: DEFAULT_SETTINGS }],
    () => ['PUT', '/api/pegs', { baseRevision: pick([0, 1]), pegs: DEFAULT_PEGS }],
    () => ['DELETE', `/api/book/removed?by=${pick(['2026-01-01T00:00:00.000Z', 'now', ''])}`],
  ];
  const bad: string[] = [];
  let [slowest, halfway, sent] = [0, 0, 0];
  const one = async () => {
    const [method, path, body] = pick(requests)();
    const sentBody = body === undefined ? undefined : random() < 0.3 ? body : odd(body, random);
    const text =
      sentBody === undefined
        ? undefined
        : random() < 0.03
          ? JSON.stringify(sentBody).slice(0, -1)
          : JSON.stringify(sentBody);
    const begun = performance.now();
    const response = await fetch(server.url + path, {
      method,
      ...(text === undefined
        ? {}
        : { body: text, headers: { 'Content-Type': random() < 0.02 ? 'text/plain' : 'application/json' } }),
    });
    const answer = await response.text();
    const ms = performance.now() - begun;
    slowest = Math.max(slowest, ms);
    const isWords = response.ok || answer.startsWith('{"code":');
    if (response.status >= 500 || ms > MAX_MS || !isWords)
      bad.push(
        `${method} ${path} ${response.status} in ${Math.round(ms)} ms: ${(text ?? '').slice(0, 200)} → ${answer.slice(0, 200)}`,
      );
  };
  const AT_ONCE = 4;
  while (sent < REQUESTS) {
    await Promise.all(Array.from({ length: AT_ONCE }, one));
    sent += AT_ONCE;
    if (halfway === 0 && sent >= REQUESTS / 2) halfway = memoryMb();
  }
  const end = memoryMb();
  console.log(
    `${sent} requests, slowest ${Math.round(slowest)} ms, memory ${Math.round(halfway)} MB halfway and ${Math.round(end)} MB at the end`,
  );
  expect(bad.slice(0, 10)).toEqual([]);
  expect(end).toBeLessThan(halfway * MAX_GROWTH + FREE_MB);
}, 3_600_000);
