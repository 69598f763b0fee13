import { compare, type Fraction, fraction, multiply, subtract, ZERO } from '#core/base';
import { alterInKey, type Key, keyFifths, MODES, pitchAtStep, sameKey } from '#core/pitch';
import {
  type BarEvent,
  barLength,
  DANCE_TYPES,
  type Link,
  type Meter,
  NOTE_MARKS,
  type NoteEvent,
  type Part,
  PLACES,
  type RestEvent,
  sameMeter,
  type Tune,
  type TuneEvent,
} from '#core/tune';
import { TUNINGS } from '#core/tuning';
import { seeded } from './tunes';

const METERS: readonly Meter[] = [
  { num: 4, den: 4 },
  { num: 4, den: 4, symbol: 'common' },
  { num: 2, den: 2, symbol: 'cut' },
  { num: 6, den: 8 },
  { num: 9, den: 8 },
  { num: 3, den: 4 },
  { num: 2, den: 4 },
  { num: 3, den: 2 },
];
const LENGTHS = [1, 1, 1, 1, 2, 2, 3, 4, 6, 1.5, 0.5].map((eighths) => fraction(eighths * 2, 16));
const LINKS: readonly Link[] = ['change', 'change', 'change', 'slur', 'slur', 'hook', 'retake'];
const CHORDS = ['D', 'Em', 'A7', 'Bm/F#', 'Gmaj7', 'C#dim', 'Bb', 'F#m7', 'slowly now'];
const NAMES = [
  ['A', 'B', 'C'],
  ['A', 'B', 'C'],
  ['A', 'B', 'C'],
  ['first', 'Turn "2"', '100%'],
];

/**
 * A tune with everything that a document can hold in odd mixtures, for round trips through file formats. It need not
 * sound well. Texts have no line ends and no doubled spaces, which one-line fields of formats cannot keep.
 */
export function randomScore(seed: number): Tune {
  const random = seeded(seed);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
  const chance = (share: number) => random() < share;
  const natural: Key = { letter: pick(['C', 'D', 'E', 'F', 'G', 'A', 'B'] as const), alter: 0, mode: pick(MODES) };
  const flat: Key = { ...natural, alter: -1 };
  // No signature has more than seven signs.
  const key = chance(0.2) && keyFifths(flat) >= -7 ? flat : natural;
  const meter = pick(METERS);
  const names = pick(NAMES).slice(0, 1 + Math.floor(random() * 3));
  const counts = { note: 0, rest: 0, bar: 0 };
  let step = 38;
  let inForce = { meter, key };

  const newPitch = () => {
    step = Math.min(52, Math.max(32, step + pick([-3, -2, -1, -1, 0, 1, 1, 2, 4])));
    const natural = pitchAtStep(step);
    const usual = alterInKey(inForce.key, natural.letter);
    return { ...natural, alter: chance(0.1) ? Math.max(-2, Math.min(2, usual + pick([-1, 1]))) : usual };
  };
  const newNote = (duration: Fraction, more: Partial<NoteEvent> = {}): NoteEvent => {
    const pitch = newPitch();
    const marks = chance(0.15) ? [...new Set([pick(NOTE_MARKS), pick(NOTE_MARKS)])] : [];
    const place = chance(0.1)
      ? { place: pick(PLACES), ...(chance(0.5) ? { position: pick([0.5, 1, 2, 3]) } : {}) }
      : {};
    counts.note += 1;
    return {
      kind: 'note',
      id: `n${counts.note}`,
      duration,
      pitch,
      ...(chance(0.06) ? { stops: [pitchAtStep(step - pick([-4, 2, 4, 5, 7]))] } : {}),
      ...(chance(0.06) ? { graceNotes: [newPitch(), ...(chance(0.3) ? [newPitch()] : [])] } : {}),
      link: counts.note === 1 ? 'start' : pick(LINKS),
      ...(counts.note > 1 && chance(0.04) ? { linkOnPass: { [pick([1, 2, 3])]: pick(LINKS) } } : {}),
      ...(chance(0.06) ? { lock: pick(['down', 'up'] as const) } : {}),
      ...place,
      ...(chance(0.1) ? { finger: pick([0, 1, 2, 3, 4]) } : {}),
      ...(chance(0.06) ? { chord: pick(CHORDS) } : {}),
      ...(marks.length > 0 ? { marks } : {}),
      ...(chance(0.04) ? { bowLength: pick([0.5, 1.25, 1.5]) } : {}),
      ...(chance(0.04) ? { drone: pick(['lower', 'upper'] as const) } : {}),
      ...(chance(0.02) ? { hold: 1.5 } : {}),
      ...(chance(0.02) ? { breath: 0.125 } : {}),
      ...(chance(0.02) ? { pace: 1.2 } : {}),
      ...more,
    };
  };
  const newRest = (duration: Fraction, more: Partial<RestEvent> = {}): RestEvent => ({
    kind: 'rest',
    id: `r${++counts.rest}`,
    duration,
    ...(chance(0.1) ? { chord: pick(CHORDS) } : {}),
    ...more,
  });
  const fill = (length: Fraction): (NoteEvent | RestEvent)[] => {
    const events: (NoteEvent | RestEvent)[] = [];
    let left = length;
    while (compare(left, ZERO) > 0) {
      if (chance(0.08) && compare(left, fraction(1, 4)) >= 0) {
        const each = multiply(fraction(1, 8), fraction(2, 3));
        for (const first of [true, false, false]) {
          const tuplet = { notes: 3, inTimeOf: 2, ...(first ? { first: true as const } : {}) };
          events.push(chance(0.1) ? newRest(each, { tuplet }) : newNote(each, { tuplet }));
        }
        left = subtract(left, fraction(1, 4));
        continue;
      }
      const wanted = pick(LENGTHS);
      const duration = compare(wanted, left) <= 0 ? wanted : left;
      events.push(chance(0.06) ? newRest(duration) : newNote(duration));
      left = subtract(left, duration);
    }
    return events;
  };
  const newBar = (more: Partial<BarEvent> = {}): BarEvent => ({ kind: 'bar', id: `b${++counts.bar}`, ...more });

  const parts = names.map((name): Part => {
    const events: TuneEvent[] = [];
    const isOnce = chance(0.2);
    if (isOnce || chance(0.3)) {
      events.push(newBar(isOnce ? { onPlays: [1] } : {}));
      events.push(...fill(fraction(1, pick([4, 8]))));
    }
    for (let bar = 0; bar < 3; bar++) {
      const changes: { meter?: Meter; key?: Key } = {};
      // The first bar of all stands in the head's own.
      const mayChange = counts.note > 0;
      if (mayChange && chance(0.06)) changes.meter = { num: pick([2, 3, 5]), den: 4 };
      if (mayChange && chance(0.06))
        changes.key = {
          letter: pick(['C', 'D', 'G', 'A'] as const),
          alter: 0,
          mode: pick(['major', 'dorian'] as const),
        };
      // A change to what holds already is none.
      if (changes.meter && sameMeter(changes.meter, inForce.meter)) delete changes.meter;
      if (changes.key && sameKey(changes.key, inForce.key)) delete changes.key;
      inForce = { ...inForce, ...changes };
      events.push(newBar({ ...changes, ...(chance(0.03) ? { onPlays: [2] } : {}) }), ...fill(barLength(inForce.meter)));
    }
    if (chance(0.3))
      for (const onPlays of pick([
        [[1], [2]],
        [
          [1, 3],
          [2, 4],
        ],
        [[1], [2], [3]],
      ]))
        events.push(newBar({ ending: true, onPlays }), ...fill(barLength(inForce.meter)));
    return { name, events: withTies(events, chance) };
  });
  const form = chance(0.6) ? names.flatMap((name) => [name, name]) : [...names, ...names.slice(0, 1), ...names];
  const text = (share: number, words: string) => (chance(share) ? words : undefined);
  const composer = text(0.3, 'Wenna Tarr & the boathouse <class>');
  const source = text(0.3, 'written down at the slipway');
  const lilt = text(0.2, 'dotted');
  return {
    schemaVersion: 1,
    title: `A score of odd things, no. ${seed} “quoted” & <marked>`,
    ...(composer === undefined ? {} : { composer }),
    ...(source === undefined ? {} : { source }),
    ...(chance(0.3) ? { notes: ['Also called: The Other Name', 'heard on a wet evening'] } : {}),
    danceType: chance(0.2) ? null : pick(DANCE_TYPES),
    meter,
    key,
    tuning: chance(0.3) ? pick(TUNINGS).tuning : TUNINGS[0]!.tuning,
    tempoBpm: chance(0.5) ? pick([56, 104.5, 220]) : null,
    ...(lilt === undefined ? {} : { lilt }),
    start: pick([null, 'down', 'up'] as const),
    parts,
    form,
  };
}

/** Some notes tied to the next one in their bar, which then has the same pitch and no bow of its own. */
function withTies(events: readonly TuneEvent[], chance: (share: number) => boolean): TuneEvent[] {
  const tied = [...events];
  for (let i = 0; i + 1 < tied.length; i++) {
    const [one, other] = [tied[i]!, tied[i + 1]!];
    if (one.kind !== 'note' || other.kind !== 'note' || one.stops || other.stops || !chance(0.05)) continue;
    tied[i] = { ...one, tie: true };
    tied[i + 1] = { ...other, pitch: one.pitch, link: 'slur' };
  }
  return tied;
}

/** A tune with its ids given anew in written order, so that two readings of one page can be compared. */
export function renamed(tune: Tune): Tune {
  const ids = new Map<string, string>();
  let [bars, notes, rests] = [0, 0, 0];
  for (const { events } of tune.parts)
    for (const { id, kind } of events)
      ids.set(id, kind === 'bar' ? `b${++bars}` : kind === 'note' ? `n${++notes}` : `r${++rests}`);
  return {
    ...tune,
    parts: tune.parts.map((part) => ({
      ...part,
      events: part.events.map((event) => ({
        ...event,
        id: ids.get(event.id)!,
        ...(event.kind === 'bar' && event.reuses ? { reuses: ids.get(event.reuses)! } : {}),
      })),
    })),
  };
}
