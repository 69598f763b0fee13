import { workerTask, WorkFailure, workThread } from './workerTask';

let made: FakeWorker[] = [];
class FakeWorker {
  terminated = 0;
  onerror: (() => void) | null = null;
  constructor() {
    made.push(this);
  }
  terminate() {
    this.terminated += 1;
  }
}
const start = () => new FakeWorker() as unknown as Worker;
jest.mock('comlink', () => ({ wrap: () => ({}) }));

const problemOf = (work: Promise<unknown>) =>
  work.then(
    () => 'answered',
    (error: unknown) => (error instanceof WorkFailure ? error.problem : (error as Error).name),
  );
const never = () => new Promise<never>(() => undefined);

beforeEach(() => {
  made = [];
  jest.useFakeTimers();
});
afterEach(() => jest.useRealTimers());

test('an answer comes, and the thread ends with it', async () => {
  await expect(workerTask(start, () => Promise.resolve(7))).resolves.toBe(7);
  expect(made.map(({ terminated }) => terminated)).toEqual([1]);
});

test('an error thrown in the work is told at once as a fault, not as time that ran out', async () => {
  const work = workerTask(start, () => Promise.reject(new TypeError('of undefined')));
  await expect(work).rejects.toMatchObject({ problem: 'fault', message: 'of undefined' });
  expect(jest.getTimerCount()).toBe(0);
});

test('what takes too long is given up with its thread', async () => {
  const problem = problemOf(workerTask(start, never, { timeLimitMs: 500 }));
  await jest.advanceTimersByTimeAsync(499);
  expect(made[0]!.terminated).toBe(0);
  await jest.advanceTimersByTimeAsync(1);
  await expect(problem).resolves.toBe('too-long');
  expect(made[0]!.terminated).toBe(1);
});

test('a thread that cannot be started is told as such', async () => {
  const problem = problemOf(workerTask(start, never));
  made[0]!.onerror!();
  await expect(problem).resolves.toBe('not-started');
});

test('aborted work settles, and work aborted beforehand starts no thread', async () => {
  const abort = new AbortController();
  const problem = problemOf(workerTask(start, never, { signal: abort.signal }));
  abort.abort();
  await expect(problem).resolves.toBe('AbortError');
  await expect(problemOf(workerTask(start, never, { signal: abort.signal }))).resolves.toBe('AbortError');
  expect(made.map(({ terminated }) => terminated)).toEqual([1]);
});

test('a thread answers one question after another; a question during another ends that one and its thread', async () => {
  const thread = workThread(start);
  await expect(thread.ask(() => Promise.resolve(1))).resolves.toBe(1);
  const first = problemOf(thread.ask(never));
  expect(made).toHaveLength(1);
  await expect(thread.ask(() => Promise.resolve(2))).resolves.toBe(2);
  await expect(first).resolves.toBe('AbortError');
  expect(made.map(({ terminated }) => terminated)).toEqual([1, 0]);
  thread.end();
  expect(made[1]!.terminated).toBe(1);
});
