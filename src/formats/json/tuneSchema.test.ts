import { z } from 'zod';
import { reuseBars } from '#core/editing';
import type { Tune } from '#core/tune';
import { bar, note, part, randomTune, tune } from '../../core/testing/tunes';
import { newTuneSchema, tuneSchema } from './tuneSchema';

const plain = tune([part('A', 'D4 E4 | F#4:2'), part('B', 'A4:2')]);
const faults = (value: unknown) =>
  tuneSchema.safeParse(value).error?.issues.map(({ path, message }) => `${path.join('.')}: ${message}`) ?? [];

test('documents of all kinds are taken as they are', () => {
  for (let seed = 1; seed <= 40; seed++) expect(tuneSchema.parse(randomTune(seed))).toEqual(randomTune(seed));
  const linked = reuseBars(plain, ['Ab1'], 'B', null)!;
  expect(tuneSchema.parse(linked)).toEqual(linked);
});

test('a bar that takes up one that is not there, or that itself takes up another, is refused at its place', () => {
  const with2 = (reuses: string): Tune => ({
    ...plain,
    parts: [plain.parts[0]!, { name: 'B', events: [bar('Bb1', { reuses }), note('B1', 'A4', 2)] }],
  });
  expect(faults(with2('gone'))).toEqual(['parts.1.events.0.reuses: takes up a bar that has its own notes']);
  expect(faults(with2('Bb1'))).toEqual(['parts.1.events.0.reuses: takes up a bar that has its own notes']);
  expect(faults(with2('Ab1'))).toEqual([]);
});

test('what a document may not have is said with its place', () => {
  expect(faults({ ...plain, form: ['A', 'C'] })).toEqual(['form.1: names a part: one of A, B']);
  expect(faults({ ...plain, parts: [plain.parts[0], plain.parts[0]] })[0]).toBe(
    'parts: part names are different from each other',
  );
  expect(faults({ ...plain, parts: [{ name: 'A', events: [note('n1', 'A4', 1)] }], form: ['A'] })).toEqual([
    'parts.0.events.0: a part begins with a bar',
  ]);
  const silent = { ...note('n1', 'A4', 1), duration: { n: 0, d: 8 } };
  expect(faults({ ...plain, parts: [{ name: 'A', events: [bar('b1'), silent] }], form: ['A'] })[0]).toMatch(
    /^parts\.0\.events\.1\.duration: a note lasts longer than 0/,
  );
  expect(faults({ ...plain, title: '  ' })).toEqual(['title: a tune has a title']);
  for (const title of ['a\0b', 'half a \ud83d sign'])
    expect(faults({ ...plain, title })).toEqual(['title: holds a character that cannot be kept']);
  const played = faults({ ...plain, form: Array<string>(1000).fill('A'), parts: longParts() });
  expect(played).toEqual([
    expect.stringMatching(/^form: 31,250 whole notes played with all repeats/),
    expect.stringMatching(/^form: plays at most/),
  ]);
});

test('where a tune is expected and none is, that is said at its place', () => {
  const kept = z.object({ revision: z.int(), tune: tuneSchema });
  for (const value of [{ revision: 1 }, { revision: 1, tune: null }, { revision: 1, tune: 'a tune' }])
    expect(kept.safeParse(value).error?.issues[0]).toMatchObject({
      path: ['tune'],
      message: expect.stringContaining('expected object'),
    });
});

function longParts() {
  const events = [bar('b1'), ...Array.from({ length: 250 }, (_, i) => note(`n${i}`, 'A4', 1))];
  return [{ name: 'A', events }];
}

test('strings as no fiddle has them do not come in, while a stored tune that has them is still read', () => {
  const [g, d, a, e] = plain.tuning;
  const turned: Tune = { ...plain, tuning: [e, a, d, g] };
  expect(tuneSchema.parse(turned)).toEqual(turned);
  expect(newTuneSchema.parse(plain)).toEqual(plain);
  expect(newTuneSchema.safeParse(turned).error?.issues).toMatchObject([
    { path: ['tuning'], message: expect.stringContaining('G: E5 is 21 semitones above its usual pitch') as string },
  ]);
});
