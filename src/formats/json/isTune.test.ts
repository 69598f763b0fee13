import { reuseBars } from '#core/editing';
import type { Part, Tune } from '#core/tune';
import { randomScore } from '../../core/testing/scores';
import { cases } from '../../core/testing/share';
import { part, randomTune, seeded, tune } from '../../core/testing/tunes';
import { isTune } from './isTune';
import { documentSchema } from './tuneSchema';

/** Documents that are not kept. */
const SPOILS: readonly ((tune: Tune) => Tune)[] = [
  (tune) => ({ ...tune, title: 'x'.repeat(301) }),
  (tune) => ({ ...tune, title: ' ' }),
  (tune) => ({ ...tune, title: 'a\0b' }),
  (tune) => ({ ...tune, composer: 'half \ud83d of it' }),
  (tune) => ({ ...tune, source: 'x'.repeat(1001) }),
  (tune) => ({ ...tune, notes: Array<string>(201).fill('x') }),
  (tune) => ({ ...tune, notes: ['x'.repeat(4001)] }),
  (tune) => ({ ...tune, form: [] }),
  (tune) => ({ ...tune, form: ['nowhere'] }),
  (tune) => ({ ...tune, form: Array<string>(1001).fill(tune.parts[0]!.name) }),
  (tune) => ({ ...tune, parts: [...tune.parts, tune.parts[0]!] }),
  (tune) => onFirst(tune, (events) => events.slice(1)),
  (tune) => onNotes(tune, { duration: { n: 0, d: 8 } }),
  (tune) => onNotes(tune, { duration: { n: 1_000_000_001, d: 1 } }),
  (tune) => onNotes(tune, { pitch: { letter: 'C', alter: 3, octave: 4 } }),
  (tune) => onNotes(tune, { pitch: { letter: 'C', alter: 0, octave: 10 } }),
  (tune) => onNotes(tune, { stops: Array.from({ length: 6 }, () => ({ letter: 'C' as const, alter: 0, octave: 4 })) }),
  (tune) =>
    onNotes(tune, { graceNotes: Array.from({ length: 17 }, () => ({ letter: 'C' as const, alter: 0, octave: 4 })) }),
  (tune) => onNotes(tune, { chord: 'x'.repeat(41) }),
  (tune) => onNotes(tune, { tuplet: { notes: 65, inTimeOf: 2 } }),
];

function onFirst(tune: Tune, change: (events: Part['events']) => Part['events']): Tune {
  const [first, ...rest] = tune.parts;
  return { ...tune, parts: [{ ...first!, events: change(first!.events) }, ...rest] };
}

function onNotes(tune: Tune, spoilt: object): Tune {
  return onFirst(tune, (events) => events.map((event) => (event.kind === 'note' ? { ...event, ...spoilt } : event)));
}

/** A value that may stand anywhere, more or less likely to be right there. */
const ODD: readonly unknown[] = [
  undefined,
  null,
  true,
  false,
  0,
  1,
  -1,
  2.5,
  0.5,
  7,
  1e12,
  NaN,
  '',
  ' ',
  'A',
  'x\0',
  'half \ud83d',
  'x'.repeat(5000),
  [],
  ['A'],
  {},
  { n: 1, d: 4 },
  { letter: 'C', alter: 0, octave: 4 },
  'slur',
  'down',
  'note',
  'bar',
  'rest',
  'Ab1',
  { 1: 'slur' },
  { 0: 'slur' },
];

/** The document with a field changed, taken away or put in, somewhere in it. */
function mutated(value: Tune, seed: number): unknown {
  const random = seeded(seed);
  const among = <T>(values: readonly T[]) => values[Math.floor(random() * values.length)]!;
  const copy = structuredClone(value) as unknown;
  let at = copy as Record<string, unknown>;
  for (;;) {
    const names = Object.keys(at);
    const name = among(names);
    const inner = at[name];
    if (inner !== null && typeof inner === 'object' && Object.keys(inner).length > 0 && random() < 0.85) {
      at = inner as Record<string, unknown>;
      continue;
    }
    const deed = random();
    if (deed < 0.15) delete at[name];
    else if (deed < 0.3)
      at[among(['extra', 'finger', 'hold', 'chord', 'reuses', 'onPlays', 'tie', 'link'])] = among(ODD);
    else at[name] = among(ODD);
    // As a document comes in.
    return JSON.parse(JSON.stringify(copy));
  }
}

test('documents of all kinds are told at once', () => {
  for (let seed = 1; seed <= 60; seed++) {
    expect(isTune(randomScore(seed))).toBe(true);
    expect(isTune(randomTune(seed))).toBe(true);
  }
  expect(isTune(reuseBars(tune([part('A', 'D4 E4 | F#4:2'), part('B', 'A4:2')]), ['Ab1'], 'B', null))).toBe(true);
});

test.each(SPOILS.map((spoil, i) => [i, spoil] as const))('what the schema refuses is none, %i', (_i, spoil) => {
  const spoilt = spoil(randomScore(3));
  expect(documentSchema.safeParse(spoilt).success).toBe(false);
  expect(isTune(spoilt)).toBe(false);
});

test('of documents with something odd in them, each one that is told for a tune the schema takes as it is', () => {
  let told = 0;
  let refused = 0;
  for (let seed = 1; seed <= cases(6000); seed++) {
    const value = mutated(seed % 2 === 0 ? randomScore(seed % 50) : randomTune(seed % 50), seed);
    const parsed = documentSchema.safeParse(value);
    if (!isTune(value)) {
      refused += 1;
      continue;
    }
    told += 1;
    expect(parsed.error).toBeUndefined();
    expect(parsed.data).toStrictEqual(value);
  }
  expect(told).toBeGreaterThan(cases(200));
  expect(refused).toBeGreaterThan(cases(2000));
});

test('something that no document has a place for is left to the schema, which takes it away', () => {
  const value = { ...randomTune(5), colour: 'blue' };
  expect(isTune(value)).toBe(false);
  expect(documentSchema.parse(value)).toEqual(randomTune(5));
});
