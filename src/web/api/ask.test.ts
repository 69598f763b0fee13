import { bookRoutes } from '#contract/book';
import { backupRoutes } from '#contract/exports';
import { tuneRoutes } from '#contract/tunes';
import { versionRoutes } from '#contract/versions';
import { ask } from './ask';

const ID = '7c5e2f5e-0000-4000-8000-000000000001';
let requests: Request[] = [];
let answers: (() => Response | Promise<Response>)[] = [];

beforeEach(() => {
  requests = [];
  answers = [];
  globalThis.fetch = (async (request: Request) => {
    requests.push(request);
    return (answers.shift() ?? (() => new Response(null, { status: 204 })))();
  }) as typeof fetch;
});

const json =
  (body: unknown, status = 200) =>
  () =>
    new Response(JSON.stringify(body), { status });
const nothing = () => Promise.reject(new TypeError('refused'));
const count = { tunes: 3, notRound: 1, short: 0 };

test('names in a path and words of a query come from what is given; what is empty is not asked for', async () => {
  answers = [json(count)];
  expect(await ask(bookRoutes.countBook, { query: { words: 'the lamp', tag: undefined, notes: '' } })).toEqual({
    ok: true,
    value: count,
  });
  expect(new URL(requests[0]!.url).search).toBe('?words=the+lamp');
  await ask(versionRoutes.removeVersion, { params: { id: ID, versionId: ID } });
  expect(requests[1]!.method).toBe('DELETE');
  expect(new URL(requests[1]!.url).pathname).toBe(`/api/tunes/${ID}/versions/${ID}`);
});

test('an answer that is not as the contract says is none', async () => {
  answers = [json({ tunes: 'three' }), () => new Response('<html>', { status: 200 })];
  const bad = { ok: false, failure: { code: 'bad-answer' } };
  expect(await ask(bookRoutes.countBook, { query: {} })).toEqual(bad);
  expect(await ask(bookRoutes.countBook, { query: {} })).toEqual(bad);
});

test('a refusal comes with its code and details; one that is not ours is told as such', async () => {
  answers = [
    json({ code: 'stale-save', message: 'newer', details: { a: 1 } }, 409),
    () => new Response('Bad Gateway', { status: 502 }),
  ];
  expect(await ask(tuneRoutes.findTune, { params: { id: ID } })).toEqual({
    ok: false,
    failure: { code: 'stale-save', details: { a: 1 } },
  });
  expect(await ask(tuneRoutes.findTune, { params: { id: ID } })).toEqual({
    ok: false,
    failure: { code: 'bad-answer' },
  });
});

describe('where no answer comes', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  test('what makes something is asked again under the same key, a question is not', async () => {
    answers = [nothing, nothing, json({ changed: 2, undo: ID })];
    const change = ask(bookRoutes.changeTunes, {
      body: { choice: { ids: [ID] }, deed: { kind: 'remove' } },
    });
    await jest.advanceTimersByTimeAsync(5_000);
    expect(await change).toEqual({ ok: true, value: { changed: 2, undo: ID } });
    const keys = requests.map(({ headers }) => headers.get('Idempotency-Key'));
    expect(keys).toHaveLength(3);
    expect(new Set(keys).size).toBe(1);
    expect(keys[0]).toMatch(/^[0-9a-f-]{36}$/);

    requests = [];
    answers = [nothing];
    expect(await ask(bookRoutes.countBook, { query: {} })).toEqual({ ok: false, failure: { code: 'no-connection' } });
    expect(requests).toHaveLength(1);
  });

  test('it is given up after the last wait, and another deed has another key', async () => {
    answers = [nothing, nothing, nothing, json({ changed: 0, undo: ID })];
    const body = { choice: { filter: {} }, deed: { kind: 'bring-back' } } as const;
    const first = ask(bookRoutes.changeTunes, { body });
    await jest.advanceTimersByTimeAsync(5_000);
    expect(await first).toEqual({ ok: false, failure: { code: 'no-connection' } });
    await ask(bookRoutes.changeTunes, { body });
    expect(new Set(requests.map(({ headers }) => headers.get('Idempotency-Key'))).size).toBe(2);
  });
});

test('a file comes under the name that the server gives, also one with letters of its own', async () => {
  const file = (disposition: string) => () =>
    new Response('bytes', { headers: { 'Content-Disposition': disposition } });
  answers = [
    file(`attachment; filename="a.abc"; filename*=UTF-8''%C5%81%C3%B3d%C5%BA.abc`),
    file('attachment; filename="b.gz"'),
  ];
  const named = async () => {
    const answer = await ask(backupRoutes.keepBackup, {});
    return answer.ok ? [answer.value.name, answer.value.file.size] : null;
  };
  expect(await named()).toEqual(['Łódź.abc', 5]);
  expect(await named()).toEqual(['b.gz', 5]);
});
