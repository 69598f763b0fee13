import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import { setLinks } from '#core/bowing';
import { part, tune } from '../../core/testing/tunes';
import type { OpenTune, TuneHistory } from './openTuneSlice';

const plain = tune([part('A', 'D4 E4 F#4 G4')]);
const slurred = setLinks(plain, new Map([['A2', 'slur']]));
const open = (id: string, more: Partial<OpenTune> = {}) =>
  ({ id, tune: slurred, past: [{ tune: plain, label: 'slur' }], future: [], selection: null, ...more }) as OpenTune;

/** The module as another load of the page has it: nothing at hand. */
async function page(): Promise<typeof import('./histories')> {
  let loaded: typeof import('./histories') | null = null;
  await jest.isolateModulesAsync(async () => {
    loaded = await import('./histories');
  });
  return loaded!;
}

test('what undo knows goes from room to room as it is, and outlasts the page', async () => {
  const first = await page();
  const own = open('a', { selection: { anchor: 'A2', focus: 'A2' } });
  first.keepHistory(own);
  expect((await first.historyOf('a'))!.past[0]!.tune).toBe(plain);
  expect((await first.historyOf('a'))!.selection).toEqual({ anchor: 'A2', focus: 'A2' });
  await first.writeHistory(own);
  const next = (await (await page()).historyOf('a')) as TuneHistory;
  expect(next).toMatchObject({ tune: slurred, past: [{ tune: plain, label: 'slur' }], future: [], selection: null });
});

test('of very many steps the last ones outlast the page, and a tune without steps leaves nothing', async () => {
  const { writeHistory } = await page();
  const past = Array.from({ length: 150 }, (_, i) => ({ tune: { ...plain, title: `T ${i}` }, label: `step ${i}` }));
  await writeHistory(open('b', { past }));
  const lasting = (await (await page()).historyOf('b'))!;
  expect(lasting.past).toHaveLength(100);
  expect(lasting.past.at(-1)!.label).toBe('step 149');
  await writeHistory(open('b', { past: [] }));
  expect(await (await page()).historyOf('b')).toBeNull();
});

test('what is no tune is not believed', async () => {
  const { writeHistory } = await page();
  await writeHistory(open('c'));
  const db = await openDB('morrin-histories', 1);
  await db.put('histories', { tuneId: 'c', at: 1, tune: { title: 'x' }, past: [], future: [] });
  db.close();
  expect(await (await page()).historyOf('c')).toBeNull();
});

test('the oldest histories give way', async () => {
  const { writeHistory } = await page();
  for (let i = 0; i < 45; i++) await writeHistory(open(`many-${i}`));
  const later = await page();
  expect(await later.historyOf('many-0')).toBeNull();
  expect(await later.historyOf('many-44')).not.toBeNull();
});
