import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import type { Attempt } from '#contract/log';
import { sampleAttempt } from '#contract/testing/attempts';
import { AttemptQueue } from './attemptQueue';

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
});

const attempt = (number: number): Attempt =>
  sampleAttempt({ id: `00000000-0000-4000-8000-${String(number).padStart(12, '0')}` });

/** A server that can be away; it keeps what it has by id, as the log does. */
function server() {
  const kept = new Map<string, Attempt>();
  const state = { isAway: false, kept };
  return {
    state,
    send: (attempts: readonly Attempt[]) => {
      if (state.isAway) return Promise.resolve(null);
      for (const own of attempts) kept.set(own.id, own);
      return Promise.resolve(attempts.map(({ id }) => id));
    },
  };
}

test('attempts go to the server, and none waits any more', async () => {
  const { state, send } = server();
  const queue = new AttemptQueue({ send });
  await queue.add(attempt(1));
  await queue.settled();
  expect([...state.kept.keys()]).toEqual([attempt(1).id]);
  expect(queue.snapshot()).toEqual({ waiting: 0, writing: 0, isStuck: false, isForgetful: false });
});

test('an attempt is said to be on its way to the disk until it is there', async () => {
  const { state, send } = server();
  state.isAway = true;
  const queue = new AttemptQueue({ send, againMs: 1e9 });
  const added = queue.add(attempt(1));
  expect(queue.snapshot()).toMatchObject({ waiting: 1, writing: 1 });
  await added;
  expect(queue.snapshot()).toMatchObject({ waiting: 1, writing: 0 });
});

test('with the server away they wait, and go when it is back', async () => {
  const { state, send } = server();
  state.isAway = true;
  const queue = new AttemptQueue({ send, againMs: 10 });
  for (let i = 1; i <= 10; i++) await queue.add(attempt(i));
  await queue.settled();
  expect(queue.snapshot()).toMatchObject({ waiting: 10, isStuck: true });
  state.isAway = false;
  await new Promise((resolve) => setTimeout(resolve, 60));
  await queue.settled();
  expect(state.kept.size).toBe(10);
  expect(queue.snapshot().waiting).toBe(0);
});

test('what a page that was closed had not sent is sent by the next one', async () => {
  const { state, send } = server();
  state.isAway = true;
  const first = new AttemptQueue({ send, againMs: 1e9 });
  await first.add(attempt(1));
  await first.add(attempt(2));
  await first.settled();
  state.isAway = false;
  const second = new AttemptQueue({ send });
  await second.resume();
  await second.settled();
  expect([...state.kept.keys()].sort()).toEqual([attempt(1).id, attempt(2).id]);
  const third = new AttemptQueue({ send });
  await third.resume();
  expect(third.snapshot().waiting).toBe(0);
});
