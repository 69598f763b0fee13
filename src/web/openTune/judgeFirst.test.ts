import { DEFAULT_SETTINGS, playerSettings } from '#contract/settings';
import { part, tune } from '../../core/testing/tunes';
import { canBeJudged } from './judgeFirst';

const settings = playerSettings(DEFAULT_SETTINGS);
const short = tune([part('A', 'D4 E4 F#4 G4')]);
const long = { ...short, form: Array<string>(1000).fill('A') };
let made: { terminated: boolean; onerror: (() => void) | null }[] = [];

beforeEach(() => {
  made = [];
  jest.useFakeTimers();
  Object.assign(globalThis, {
    Worker: class {
      terminated = false;
      onerror: (() => void) | null = null;
      constructor() {
        made.push(this);
      }
      addEventListener() {}
      removeEventListener() {}
      postMessage() {}
      terminate() {
        this.terminated = true;
      }
    },
  });
});
afterEach(() => jest.useRealTimers());

jest.mock('comlink', () => ({ wrap: () => ({ judge: () => new Promise(() => undefined) }) }));

test('a tune as they are played is judged without being tried first', async () => {
  expect(await canBeJudged(short, settings)).toBe(true);
  expect(made).toHaveLength(0);
});

test('one that never ends is given up with its thread', async () => {
  const answer = canBeJudged(long, settings);
  await jest.advanceTimersByTimeAsync(60_000);
  expect(await answer).toBe(false);
  expect(made.map(({ terminated }) => terminated)).toEqual([true]);
});

test('one that ends its thread is told as such at once', async () => {
  const answer = canBeJudged(long, settings);
  made[0]!.onerror!();
  expect(await answer).toBe(false);
  expect(made[0]!.terminated).toBe(true);
});
