import type { Express } from 'express';
import request from 'supertest';
import { ROUTES } from '#contract/routes';
import { readAbc } from '#formats/abc';
import { testApp } from './testApp';

/** How a route that writes keeps two windows, and an answer that was lost, from undoing or doubling what was done. */
type Guard =
  /** The request names the revision that it builds on. */
  | 'revision'
  /** An `Idempotency-Key` makes it happen once. */
  | 'key'
  /** Done twice it is the same as done once, and it touches nothing that another window may have changed. */
  | 'same-again'
  /** Nothing is stored. */
  | 'stores-nothing';

const WRITES: Readonly<Record<string, { readonly guard: Guard; readonly because: string }>> = {
  'POST /api/tunes': { guard: 'key', because: 'makes tunes' },
  'PUT /api/tunes/:id': { guard: 'revision', because: 'replaces a document' },
  'POST /api/tunes/:id/versions': { guard: 'key', because: 'makes a version' },
  'PATCH /api/tunes/:id/versions/:versionId': { guard: 'revision', because: 'replaces name and origin' },
  'DELETE /api/tunes/:id/versions/:versionId': {
    guard: 'same-again',
    because: 'the player saw it named; gone is gone',
  },
  'POST /api/book/demo': { guard: 'same-again', because: 'fills an empty book only, one at a time' },
  'POST /api/book/changes': { guard: 'key', because: 'makes a change that can be taken back' },
  'POST /api/book/changes/:id/undo': { guard: 'key', because: 'takes back only what is still as the change left it' },
  'DELETE /api/book/removed': { guard: 'same-again', because: 'only what was out of the book when it was looked at' },
  'POST /api/book/views': { guard: 'key', because: 'put under the name that the player gave' },
  'DELETE /api/book/views/:id': { guard: 'same-again', because: 'a view holds nothing but a question' },
  'POST /api/backup': { guard: 'same-again', because: 'the book as it was is kept as a copy, revisions move on' },
  'POST /api/export': { guard: 'stores-nothing', because: 'a file' },
  'POST /api/handout/pdf': { guard: 'stores-nothing', because: 'a file' },
  'POST /api/likenesses': { guard: 'stores-nothing', because: 'a question' },
  'POST /api/imports': { guard: 'key', because: 'begins an import' },
  'PUT /api/imports/:id/original': { guard: 'same-again', because: 'the import is this window’s own' },
  'PUT /api/imports/:id/tunes': { guard: 'same-again', because: 'a piece takes the place of the same piece' },
  'POST /api/imports/:id/finish': { guard: 'same-again', because: 'finished once; its answer is kept' },
  'DELETE /api/imports/:id': { guard: 'same-again', because: 'the import is this window’s own' },
  'PUT /api/settings': { guard: 'revision', because: 'replaces the settings' },
  'PUT /api/pegs': { guard: 'revision', because: 'replaces the pegs' },
  'POST /api/log/attempts': { guard: 'same-again', because: 'attempts have ids of where they were played' },
  'POST /api/log/import': { guard: 'same-again', because: 'attempts have ids, or get them from what they say' },
  'PUT /api/tunes/:id/practice': { guard: 'revision', because: 'replaces how a tune is practised' },
  'PUT /api/sets': { guard: 'revision', because: 'replaces the sets' },
};

const { tune } = readAbc('X:1\nT:Guards\nM:4/4\nL:1/8\nK:D\n|:d2 (AF) DFA2:|\n').tunes[0]!;
/** Bodies that are as they should be, where one is needed to come as far as the key. */
const bodies: Readonly<Record<string, object>> = {
  'POST /api/tunes': { tunes: [{ tune }] },
  'POST /api/tunes/:id/versions': { name: 'Plain', tune },
  'POST /api/book/changes': { choice: { filter: {} }, deed: { kind: 'remove' } },
  'POST /api/book/views': { name: 'Reels', query: {} },
  'POST /api/imports': { fileName: 'a.abc' },
};

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
  readonly handle: { readonly stack?: readonly Layer[] };
}

/** Every route that the app answers, as `POST /api/tunes`. */
function routesOf(app: Express): string[] {
  const layers = (app as unknown as { router: { stack: readonly Layer[] } }).router.stack;
  return layers.flatMap(({ handle }) =>
    (handle.stack ?? []).flatMap(({ route }) =>
      Object.keys(route?.methods ?? {})
        .filter((method) => method !== 'head')
        .map((method) => `${method.toUpperCase()} ${route!.path}`),
    ),
  );
}

const NAMES = Object.values(ROUTES).map(({ method, path }) => `${method} ${path}`);

test('the app answers the routes of the contract and no others, each once', async () => {
  const { app, close } = await testApp('contract_routes');
  expect(routesOf(app).sort()).toEqual([...NAMES].sort());
  expect(new Set(NAMES).size).toBe(NAMES.length);
  await close();
});

test('what makes something is asked under a key, and nothing else', () => {
  const making = Object.values(ROUTES).filter(({ makes }) => makes);
  const keyed = Object.entries(WRITES).filter(([, { guard }]) => guard === 'key');
  expect(making.map(({ method, path }) => `${method} ${path}`).sort()).toEqual(keyed.map(([name]) => name).sort());
});

test('every route that writes says how it keeps others’ work, and there is no other', async () => {
  const { app, close } = await testApp('write_routes');
  expect(NAMES.filter((name) => !name.startsWith('GET ')).sort()).toEqual(Object.keys(WRITES).sort());
  for (const [name, { guard }] of Object.entries(WRITES)) {
    const [method, path] = name.split(' ') as ['PUT', string];
    const address = path.replace(/:\w+/g, '7c5e2f5e-0000-4000-8000-000000000000');
    const send = () => request(app)[method.toLowerCase() as 'put'](address);
    if (guard === 'revision') {
      // Without the revision that it builds on nothing is taken.
      const refused = await send().send({});
      expect([name, refused.status, JSON.stringify(refused.body)]).toEqual([
        name,
        expect.any(Number),
        expect.stringContaining('baseRevision'),
      ]);
    }
    if (guard === 'key') {
      const odd = await send()
        .set('Idempotency-Key', 'not a key')
        .send(bodies[name] ?? {});
      expect([name, odd.status, JSON.stringify(odd.body)]).toEqual([
        name,
        400,
        expect.stringContaining('Idempotency-Key'),
      ]);
    }
  }
  await close();
});
