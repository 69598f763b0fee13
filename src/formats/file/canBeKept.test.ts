import type { Part, Tune } from '#core/tune';
import { tuneSchema } from '#formats/json';
import { randomScore } from '../../core/testing/scores';
import { seeded } from '../../core/testing/tunes';
import { canBeKept } from './canBeKept';

/** Ways in which a file can make a document that is not kept. */
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

test('whatever can be kept, the schema takes', () => {
  const random = seeded(12);
  for (let seed = 1; seed <= 60; seed++) {
    const value = randomScore(seed);
    expect(canBeKept(value)).toBe(true);
    const spoilt = SPOILS[Math.floor(random() * SPOILS.length)]!(value);
    if (canBeKept(spoilt)) expect(tuneSchema.safeParse(spoilt).error).toBeUndefined();
  }
});

test.each(SPOILS.map((spoil, i) => [i, spoil] as const))('what the schema refuses cannot be kept, %i', (_i, spoil) => {
  const spoilt = spoil(randomScore(3));
  expect(tuneSchema.safeParse(spoilt).success).toBe(false);
  expect(canBeKept(spoilt)).toBe(false);
});
