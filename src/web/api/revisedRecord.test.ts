import type { Answer } from './answer';
import { carried, type Revised, RevisedQueue } from './revisedRecord';

interface Choices {
  readonly schools: Readonly<Record<string, string>>;
  readonly limits: Readonly<Record<string, number>>;
  readonly lilts: readonly string[];
}
const START: Choices = { schools: { turn: 'flow', arm: 'middle' }, limits: { strokeMs: 100 }, lilts: [] };

test('what was chosen is carried over field by field, what was taken away goes, a list is one thing', () => {
  const newest: Choices = {
    schools: { turn: 'flow', arm: 'wrist' },
    limits: { strokeMs: 90, liftMs: 5 },
    lilts: ['a'],
  };
  const school = { before: START, next: { ...START, schools: { ...START.schools, turn: 'stop' } } };
  expect(carried(school, newest)).toEqual({ ...newest, schools: { turn: 'stop', arm: 'wrist' } });
  expect(carried({ before: START, next: { ...START, limits: {} } }, newest)).toEqual({
    ...newest,
    limits: { liftMs: 5 },
  });
  expect(carried({ before: START, next: { ...START, lilts: ['b'] } }, newest).lilts).toEqual(['b']);
  expect(carried({ before: START, next: START }, newest)).toEqual(newest);
});

test('of items with ids each is carried by itself: two windows may change two of them', () => {
  const fiddle = (id: string, hairCm: number) => ({ id, hairCm, strings: ['a'] });
  const before = { fiddles: [fiddle('a', 65), fiddle('b', 65)] };
  const newest = { fiddles: [fiddle('a', 60), fiddle('b', 65), fiddle('c', 65)] };
  const next = { fiddles: [fiddle('a', 65), fiddle('b', 70), fiddle('d', 65)] };
  expect(carried({ before, next }, newest)).toEqual({
    fiddles: [fiddle('a', 60), fiddle('b', 70), fiddle('c', 65), fiddle('d', 65)],
  });
  expect(carried({ before, next: { fiddles: [before.fiddles[1]!] } }, newest).fiddles.map(({ id }) => id)).toEqual([
    'b',
    'c',
  ]);
});

/** A server that keeps one record and takes its time. */
function slowServer() {
  let record: Revised<Choices> = { revision: 3, value: START };
  let shown = record;
  const saves: number[] = [];
  let fails: 'no-connection' | null = null;
  const queue = new RevisedQueue<Choices, { revision: number }>({
    shown: () => shown,
    show: (next) => {
      shown = next;
    },
    save: async (baseRevision, value): Promise<Answer<{ revision: number }>> => {
      saves.push(baseRevision);
      await new Promise((resolve) => setTimeout(resolve, 5));
      if (fails) return { ok: false, failure: { code: fails } };
      if (baseRevision !== record.revision) return { ok: false, failure: { code: 'stale-save', details: record } };
      record = { revision: record.revision + 1, value };
      return { ok: true, value: { revision: record.revision } };
    },
    newer: ({ code, details }) => (code === 'stale-save' ? (details as Revised<Choices>) : null),
  });
  const choose = (make: (value: Choices) => Choices) => queue.change({ before: shown.value, next: make(shown.value) });
  return {
    queue,
    choose,
    saves,
    record: () => record,
    shown: () => shown,
    fail: (code: typeof fails) => (fails = code),
    changeElsewhere: (make: (value: Choices) => Choices) =>
      (record = { revision: record.revision + 1, value: make(record.value) }),
  };
}
const school = (name: string, choice: string) => (value: Choices) => ({
  ...value,
  schools: { ...value.schools, [name]: choice },
});

test('four quick choices against a slow server are shown at once and all kept, none refused', async () => {
  const server = slowServer();
  const answers = ['turn', 'arm', 'skips', 'cuts'].map((name) => server.choose(school(name, 'new')));
  expect(server.shown().value.schools).toEqual({ turn: 'new', arm: 'new', skips: 'new', cuts: 'new' });
  expect((await Promise.all(answers)).every(({ ok }) => ok)).toBe(true);
  expect(server.saves).toEqual([3, 4, 5, 6]);
  expect(server.record()).toEqual({ revision: 7, value: { ...START, schools: server.shown().value.schools } });
  expect(server.shown()).toEqual(server.record());
});

test('choices from one old picture do not undo each other', async () => {
  const server = slowServer();
  await Promise.all(
    ['turn', 'arm'].map((name) => server.queue.change({ before: START, next: school(name, 'new')(START) })),
  );
  expect(server.record().value.schools).toEqual({ turn: 'new', arm: 'new' });
});

test('a choice of another window meanwhile stays, and so does one’s own', async () => {
  const server = slowServer();
  const first = server.choose(school('turn', 'stop'));
  server.changeElsewhere((value) => ({ ...value, limits: { strokeMs: 80 } }));
  const second = server.choose(school('arm', 'wrist'));
  expect((await Promise.all([first, second])).every(({ ok }) => ok)).toBe(true);
  const value = { schools: { turn: 'stop', arm: 'wrist' }, limits: { strokeMs: 80 }, lilts: [] };
  expect(server.record().value).toEqual(value);
  expect(server.shown().value).toEqual(value);
});

test('a choice that cannot be kept is taken back alone', async () => {
  const server = slowServer();
  const lost = server.choose(school('turn', 'stop'));
  server.fail('no-connection');
  expect((await lost).ok).toBe(false);
  expect(server.shown().value).toEqual(START);
  server.fail(null);
  expect((await server.choose(school('arm', 'wrist'))).ok).toBe(true);
  expect(server.record().value.schools).toEqual({ turn: 'flow', arm: 'wrist' });
});
