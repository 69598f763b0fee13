import type { Fraction } from '#core/base';
import type { Part, Tune, TuneEvent } from '#core/tune';
import { bar, note, rest, tune as tuneOf } from '../src/core/testing/tunes';
import { seeded } from '../src/core/testing/tunes';
import { longTune, MAX_BARS } from './enormous';
import { type RunningServer, startServer } from './running';

declare const TEST_SHARE: number;
const TUNES = TEST_SHARE === 1 ? 2_000 : 25;
/** Beside other work everything takes longer. */
const MAX_MS = TEST_SHARE === 1 ? 2_000 : 6_000;

let server: RunningServer;
beforeAll(async () => {
  server = await startServer('extremes', { MORRIN_LOG: 'error' });
}, 60_000);
afterAll(() => server.stop());

/** A document that the bounds let through and nobody would write: odd lengths, ties and slurs without end, parts by the hundred. */
function extreme(random: () => number): Tune {
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
  const size = Math.round(4 * 10 ** (random() * 3));
  const names = Array.from({ length: pick([1, 1, 2, 3, 20, 60]) }, (_, i) => `P${i}`);
  const denominators = pick([[8], [8, 12, 20, 28], [7, 9, 5, 16], [512], [1, 2, 64], [249_999], [8, 1024]]);
  const link = pick([['change'], ['slur'], ['hook'], ['retake'], ['change', 'slur', 'hook', 'retake']] as const);
  const isTied = random() < 0.3;
  const pitches = pick([['D4'], ['G3', 'E7'], ['C#4', 'Eb5', 'F##4'], ['D4', 'A4', 'F#5', 'B5']]);
  const parts = names.map((name): Part => {
    const events: TuneEvent[] = [];
    for (let at = 0; at < Math.max(2, size / names.length); at++) {
      if (at % pick([8, 8, 3, 50]) === 0) events.push(bar(`${name}b${at}`));
      const duration: Fraction = { n: pick([1, 1, 1, 3, 63]), d: pick(denominators) };
      const long: Fraction = random() < 0.01 ? { n: 64, d: 1 } : duration;
      events.push(
        random() < 0.1
          ? { ...rest(`${name}r${at}`, 1), duration: long }
          : {
              ...note(`${name}n${at}`, isTied ? pitches[0]! : pick(pitches), 1, { link: pick(link) }),
              duration: long,
              ...(isTied ? { tie: true as const } : {}),
              ...(random() < 0.05 ? { chord: pick(['D', 'F#m7b5']) } : {}),
            },
      );
    }
    if (events[0]?.kind !== 'bar') events.unshift(bar(`${name}first`));
    return { name, events };
  });
  const form = Array.from({ length: pick([1, 2, 4, 60]) }, () => pick(names));
  return {
    ...tuneOf(parts, { form: [...names, ...form] }),
    title: pick(['Plain', 'w'.repeat(300), 'ŁódźŁódź '.repeat(30), '‮tfel']),
    notes: random() < 0.1 ? Array.from({ length: 100 }, () => 'word '.repeat(300)) : [],
  };
}

test('whatever the bounds let through is saved, opened and written, at once', async () => {
  const random = seeded(31);
  const bad: string[] = [];
  let [kept, refused, slowest] = [0, 0, 0];
  const ask = async (what: string, path: string, init: RequestInit = {}): Promise<Response | null> => {
    const begun = performance.now();
    const response = await fetch(server.url + path, { ...init, headers: { 'Content-Type': 'application/json' } });
    const ms = performance.now() - begun;
    slowest = Math.max(slowest, ms);
    if (response.status >= 500 || ms > MAX_MS) bad.push(`${what}: ${response.status} in ${Math.round(ms)} ms`);
    return response;
  };
  for (let number = 0; number < TUNES; number++) {
    const tune = number === 0 ? longTune(MAX_BARS) : extreme(random);
    const what = `tune ${number}`;
    const made = await ask(`${what} saved`, '/api/tunes', {
      method: 'POST',
      body: JSON.stringify({ tunes: [{ tune }] }),
    });
    if (!made!.ok) {
      refused += 1;
      const words = await made!.text();
      if (process.env.TELL) process.stderr.write(`${words.slice(0, 300)}\n`);
      continue;
    }
    kept += 1;
    const { id } = ((await made!.json()) as { tunes: [{ id: string }] }).tunes[0];
    await (await ask(`${what} opened`, `/api/tunes/${id}`))!.text();
    if (number % 10 === 0) {
      const again = { baseRevision: 1, tune: { ...tune, start: 'up' } };
      await (await ask(`${what} saved again`, `/api/tunes/${id}`, {
        method: 'PUT',
        body: JSON.stringify(again),
      }))!.text();
      await (await ask(`${what} likened`, `/api/likenesses/${id}`))!.text();
    }
  }
  console.log(`${kept} extreme tunes kept, ${refused} refused in words, slowest answer ${Math.round(slowest)} ms`);
  expect(kept).toBeGreaterThan(TUNES / 2);
  expect(bad.slice(0, 10)).toEqual([]);
}, 3_600_000);
