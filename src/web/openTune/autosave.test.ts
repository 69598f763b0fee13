import 'fake-indexeddb/auto';
import { deleteDB } from 'idb';
import { setLinks } from '#core/bowing';
import type { Tune } from '#core/tune';
import { part, tune } from '../../core/testing/tunes';
import { createStore } from '../store/store';
import { newestDraft, removeDraft, takeOverDraft, writeDraft } from './drafts';
import { joinOpenTune } from './joinOpenTune';
import { keptHere } from './keptHere';
import { conflictSettled, edited, tuneClosed, tuneOpened } from './openTuneSlice';
import { settled } from './settling';

const ID = '7c5e2f5e-0000-4000-8000-000000000001';
const plain = tune([part('A', 'D4 E4 F#4 G4')]);
const slurred = (id: string, on: Tune = plain) => setLinks(on, new Map([[id, 'slur']]));
const record = { id: ID, revision: 3, updatedAt: '2026-01-01T00:00:00.000Z', hasSource: true, tune: plain };

type Reply = { status: number; body: unknown } | 'nothing';
let asked: { url: string; body: { baseRevision: number; tune: Tune } }[];
let replies: Reply[];
let held: (() => void)[];

/** A server that answers from a list; `hold` lets an answer wait. */
function serve(hold = false): void {
  globalThis.fetch = (async (request: Request) => {
    asked.push({ url: new URL(request.url).pathname, body: JSON.parse(await request.text()) as never });
    const reply = replies.shift() ?? { status: 200, body: { revision: 99, updatedAt: record.updatedAt } };
    const answer = () =>
      reply === 'nothing'
        ? Promise.reject(new TypeError('refused'))
        : Promise.resolve(new Response(JSON.stringify(reply.body), { status: reply.status }));
    return hold ? new Promise((resolve) => held.push(() => resolve(answer()))) : answer();
  }) as never;
}

const kept = (revision: number): Reply => ({ status: 200, body: { revision, updatedAt: record.updatedAt } });
const settle = (ms: number) => jest.advanceTimersByTimeAsync(ms);
/** What the browser's store answers after a while, on the clock of the test. */
async function after<T>(answer: Promise<T>): Promise<T> {
  let isDone = false;
  void answer.finally(() => (isDone = true)).catch(() => undefined);
  for (let tries = 0; !isDone && tries < 50; tries++) await settle(1);
  return answer;
}
const draft = () => after(newestDraft(ID));
const taken = () => after(takeOverDraft(ID));

beforeEach(async () => {
  jest.useFakeTimers();
  await after(deleteDB('morrin-drafts'));
  localStorage.clear();
  sessionStorage.clear();
  asked = [];
  replies = [];
  held = [];
  serve();
});
afterEach(() => jest.useRealTimers());

function openStore() {
  const store = createStore();
  joinOpenTune(store);
  store.dispatch(tuneOpened({ record, unsaved: null, at: 0 }));
  return store;
}
const saveOf = (store: ReturnType<typeof createStore>) => store.getState().openTune.open!.save.kind;

test('an edit is in the browser once it is shown, on the server after a pause, and the draft is then gone', async () => {
  const store = openStore();
  replies = [kept(4)];
  store.dispatch(edited({ tune: slurred('A2'), label: 'slur' }));
  await settle(0);
  expect(await draft()).toMatchObject({ baseRevision: 3, tune: slurred('A2') });
  expect(asked).toHaveLength(0);
  await settle(500);
  expect(asked.map(({ body }) => body.baseRevision)).toEqual([3]);
  expect(saveOf(store)).toBe('kept');
  expect(store.getState().openTune.open!.revision).toBe(4);
  expect(await draft()).toBeNull();
});

test('a page left in the same breath as an edit still leaves its draft', async () => {
  const store = openStore();
  store.dispatch(edited({ tune: slurred('A2'), label: 'slur' }));
  window.dispatchEvent(new Event('pagehide'));
  expect(await draft()).toMatchObject({ tune: slurred('A2') });
});

test('quick edits go in one save; one made while a save is under way goes in the next, on the new revision', async () => {
  const store = openStore();
  serve(true);
  replies = [kept(4), kept(5)];
  store.dispatch(edited({ tune: slurred('A2'), label: 'slur' }));
  store.dispatch(edited({ tune: slurred('A3', slurred('A2')), label: 'slur' }));
  await settle(500);
  store.dispatch(edited({ tune: slurred('A4'), label: 'slur' }));
  held.shift()!();
  await settle(500);
  held.shift()!();
  await settle(10);
  expect(asked.map(({ body }) => body.baseRevision)).toEqual([3, 4]);
  expect(asked[1]!.body.tune).toEqual(slurred('A4'));
  expect(saveOf(store)).toBe('kept');
});

test('while nothing answers it is tried again, and the draft stays until it was', async () => {
  const store = openStore();
  replies = ['nothing', { status: 503, body: { code: 'database-away', message: '' } }, kept(4)];
  store.dispatch(edited({ tune: slurred('A2'), label: 'slur' }));
  await settle(500);
  expect(saveOf(store)).toBe('failed');
  expect(await draft()).not.toBeNull();
  await settle(1100);
  expect(saveOf(store)).toBe('failed');
  await settle(2100);
  expect(saveOf(store)).toBe('kept');
  expect(asked).toHaveLength(3);
});

test('a refused stale save asks which version to take; mine on top builds on the newer revision', async () => {
  const store = openStore();
  const theirs = { ...record, revision: 7, tune: { ...plain, title: 'Theirs' } };
  replies = [{ status: 409, body: { code: 'stale-save', message: '', details: { current: theirs } } }, kept(8)];
  store.dispatch(edited({ tune: slurred('A2'), label: 'slur' }));
  await settle(500);
  expect(saveOf(store)).toBe('conflict');
  store.dispatch(conflictSettled({ take: 'mine', at: 1 }));
  await settle(500);
  expect(asked[1]!.body).toMatchObject({ baseRevision: 7, tune: slurred('A2') });
  expect(saveOf(store)).toBe('kept');
});

test('a save that was made though its answer was lost is no other version: later edits go on top of it', async () => {
  const store = openStore();
  const made = { ...record, revision: 4, tune: slurred('A2') };
  replies = [
    'nothing',
    { status: 409, body: { code: 'stale-save', message: '', details: { current: made } } },
    kept(5),
  ];
  store.dispatch(edited({ tune: slurred('A2'), label: 'slur' }));
  await settle(500);
  expect(saveOf(store)).toBe('failed');
  store.dispatch(edited({ tune: slurred('A3', slurred('A2')), label: 'slur' }));
  await settle(3000);
  expect(asked.map(({ body }) => body.baseRevision)).toEqual([3, 3, 4]);
  expect(asked[2]!.body.tune).toEqual(slurred('A3', slurred('A2')));
  expect(saveOf(store)).toBe('kept');
});

test('a tune left while its save is under way still gets its last edit, on the revision that save made', async () => {
  const store = openStore();
  serve(true);
  replies = [kept(4), kept(5)];
  store.dispatch(edited({ tune: slurred('A2'), label: 'slur' }));
  await settle(500);
  store.dispatch(edited({ tune: slurred('A3'), label: 'slur' }));
  store.dispatch(tuneClosed());
  held.shift()!();
  await settle(10);
  held.shift()!();
  await settle(10);
  expect(asked.map(({ body }) => body.baseRevision)).toEqual([3, 4]);
  expect(asked[1]!.body.tune).toEqual(slurred('A3'));
  expect(await draft()).toBeNull();
});

test('edits to a tune opened while another was being saved are saved too', async () => {
  const store = openStore();
  serve(true);
  const other = { ...record, id: ID.replace(/1$/, '2'), revision: 1 };
  store.dispatch(edited({ tune: slurred('A2'), label: 'slur' }));
  await settle(500);
  store.dispatch(tuneOpened({ record: other, unsaved: null, at: 0 }));
  store.dispatch(edited({ tune: slurred('A3'), label: 'slur' }));
  await settle(500);
  held.shift()!();
  await settle(500);
  expect(asked.map(({ url }) => url.slice(-1))).toEqual(['1', '2']);
});

test('it is said to be safe in this browser only once it is', async () => {
  const store = openStore();
  replies = ['nothing'];
  store.dispatch(edited({ tune: slurred('A2'), label: 'slur' }));
  expect(keptHere.get()).toBe('writing');
  for (let tries = 0; keptHere.get() === 'writing' && tries < 50; tries++) await settle(1);
  expect(keptHere.get()).toBe('kept');
  expect(await draft()).toMatchObject({ tune: slurred('A2') });
});

test('who comes back at once waits for their own last save, and is in nobody’s way', async () => {
  const store = openStore();
  serve(true);
  replies = [kept(4)];
  store.dispatch(edited({ tune: slurred('A2'), label: 'slur' }));
  store.dispatch(tuneClosed());
  let isSettled = false;
  void settled(ID).then(() => (isSettled = true));
  await settle(50);
  expect(isSettled).toBe(false);
  held.shift()!();
  await settle(50);
  expect(isSettled).toBe(true);
});

describe('drafts of other pages', () => {
  const put = (page: string, at: number, of: Tune) =>
    localStorage.setItem(`morrin.draft.${ID}.${page}`, JSON.stringify({ baseRevision: 3, tune: of, at }));
  const open = (...pages: string[]) =>
    Object.defineProperty(navigator, 'locks', {
      configurable: true,
      value: {
        request: () => new Promise(() => undefined),
        query: () => Promise.resolve({ held: pages.map((page) => ({ name: `morrin.page.${page}` })) }),
      },
    });
  afterEach(() => Reflect.deleteProperty(navigator, 'locks'));

  test('what a closed one left is taken over, the newest first, and those of others stay', async () => {
    put('elsewhere', 5, plain);
    put('closed', 9, slurred('A2'));
    expect(await taken()).toMatchObject({ tune: slurred('A2') });
    expect(Object.keys(localStorage)).toContain(`morrin.draft.${ID}.elsewhere`);
    expect(localStorage.getItem(`morrin.draft.${ID}.closed`)).toBeNull();
  });

  test('one that is open keeps its own, however new; it is only looked at', async () => {
    open('elsewhere');
    put('elsewhere', 9, slurred('A3'));
    put('closed', 5, slurred('A2'));
    expect(await draft()).toMatchObject({ tune: slurred('A3') });
    expect(await taken()).toMatchObject({ tune: slurred('A2') });
    expect(localStorage.getItem(`morrin.draft.${ID}.elsewhere`)).not.toBeNull();
    await after(removeDraft(ID, 5));
    expect(await taken()).toBeNull();
  });
});

test('a draft that cannot be read is left alone, and one that cannot be written is asked about on leaving', async () => {
  localStorage.setItem(`morrin.draft.${ID}.broken`, '{"baseRevision":');
  expect(await draft()).toBeNull();
  const store = openStore();
  replies = ['nothing'];
  const full = jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  expect(await after(writeDraft(ID, { baseRevision: 1, tune: plain, at: 1 }))).toBe(false);
  store.dispatch(edited({ tune: slurred('A2'), label: 'slur' }));
  expect(keptHere.get()).toBe('writing');
  await settle(500);
  expect(keptHere.get()).toBe('refused');
  const leaving = new Event('beforeunload', { cancelable: true });
  window.dispatchEvent(leaving);
  expect(leaving.defaultPrevented).toBe(true);
  full.mockRestore();
});
