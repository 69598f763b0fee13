import { POSITIONS } from '#core/fingering';
import type { Fraction } from '#core/base';
import { LETTERS, MODES, type Pitch } from '#core/pitch';
import { HOLD_RANGE, LILT_NAME, MAX_BREATH, PACE_RANGE } from '#core/tempo';
import { MIN_WISH, MAX_WISH } from '#core/travel';
import { DANCE_TYPES, LINKS, NOTE_MARKS, PLACES, type Tune, lengthFault } from '#core/tune';
import { ID_WORDS, MOST, MAX_COUNT, MAX_EVENTS, MAX_PLAYED_EVENTS, WORDS, playedEvents } from './bounds';

type Check = (value: unknown) => boolean;
type Checks = Readonly<Record<string, Check>>;

const among = (values: readonly unknown[]): Check => {
  const known = new Set(values);
  return (value) => known.has(value);
};
const whole =
  (least: number, most: number): Check =>
  (value) =>
    Number.isInteger(value) && (value as number) >= least && (value as number) <= most;
const between =
  (least: number, most: number): Check =>
  (value) =>
    typeof value === 'number' && value >= least && value <= most;
const text =
  (least: number, most: number, form: RegExp): Check =>
  (value) =>
    typeof value === 'string' && value.length >= least && value.length <= most && form.test(value);
const list =
  (least: number, most: number, check: Check): Check =>
  (value) => {
    if (!Array.isArray(value) || value.length < least || value.length > most) return false;
    // A hole is an item too.
    for (const item of value) if (!check(item)) return false;
    return true;
  };
const orNull =
  (check: Check): Check =>
  (value) =>
    value === null || check(value);

/** An object with all of the first fields, any of the others and nothing else. */
function shape(needed: Checks, optional: Checks = {}): Check {
  const names = [...Object.keys(needed), ...Object.keys(optional)];
  const checks = [...Object.values(needed), ...Object.values(optional)];
  const neededCount = Object.keys(needed).length;
  return (value) => {
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
    const fields = value as Record<string, unknown>;
    let found = 0;
    let at = 0;
    for (const name in fields) {
      // Fields mostly stand in this order, so the next one is looked at first.
      if (names[at] !== name) at = names.indexOf(name);
      if (at < 0 || !checks[at]!(fields[name])) return false;
      if (at < neededCount) found += 1;
      at += 1;
    }
    return found === neededCount;
  };
}

function countFields(value: object): number {
  let count = 0;
  for (const _name in value) count += 1;
  return count;
}

const words = (least: number, most: number) => text(least, most, WORDS);
const yes = among([true]);
const id = text(1, MOST.id, ID_WORDS);
/** Lengths and pitches are most of a document: they are looked at without a list of fields. */
const lasts =
  (least: number): Check =>
  (value) => {
    if (typeof value !== 'object' || value === null || countFields(value) !== 2) return false;
    const { n, d } = value as Fraction;
    return Number.isInteger(n) && n >= least && n <= MAX_COUNT && Number.isInteger(d) && d >= 1 && d <= MAX_COUNT;
  };
const length = lasts(1);
const silence = lasts(0);
const letter = among(LETTERS);
const direction = among(['down', 'up']);
const link = among(LINKS);
const pitch: Check = (value) => {
  if (typeof value !== 'object' || value === null || countFields(value) !== 3) return false;
  const { alter, octave } = value as Pitch;
  return (
    letter((value as Pitch).letter) &&
    Number.isInteger(alter) &&
    alter >= -2 &&
    alter <= 2 &&
    Number.isInteger(octave) &&
    octave >= -1 &&
    octave <= 9
  );
};
const meter = shape({ num: whole(1, 64), den: among([1, 2, 4, 8, 16, 32]) }, { symbol: among(['common', 'cut']) });
const key = shape(
  { letter, alter: whole(-1, 1), mode: among(MODES) },
  { extra: list(0, 7, shape({ letter, alter: whole(-2, 2) })) },
);
const tuplet = shape({ notes: whole(2, 64), inTimeOf: whole(1, 64) }, { first: yes });
const chord = words(0, MOST.chord);
const PASS = /^[1-9]\d{0,2}$/;
const passes: Check = (value) =>
  typeof value === 'object' &&
  value !== null &&
  !Array.isArray(value) &&
  Object.entries(value).every(([pass, own]) => PASS.test(pass) && link(own));

const note = shape(
  { kind: among(['note']), id, duration: length, pitch, link },
  {
    stops: list(0, MOST.stops, pitch),
    graceNotes: list(0, MOST.graceNotes, pitch),
    tie: yes,
    linkOnPass: passes,
    lock: direction,
    place: among(PLACES),
    finger: whole(0, 4),
    position: among(POSITIONS),
    tuplet,
    chord,
    marks: list(0, NOTE_MARKS.length, among(NOTE_MARKS)),
    drone: among(['lower', 'upper']),
    bowLength: between(MIN_WISH, MAX_WISH),
    hold: between(HOLD_RANGE.least, HOLD_RANGE.most),
    breath: between(Number.MIN_VALUE, MAX_BREATH),
    pace: between(PACE_RANGE.least, PACE_RANGE.most),
  },
);
const rest = shape({ kind: among(['rest']), id, duration: silence }, { tuplet, chord });
const bar = shape(
  { kind: among(['bar']), id },
  { onPlays: list(1, MOST.onPlays, whole(1, 999)), ending: yes, meter, key, reuses: id },
);
const event: Check = (value) => {
  const { kind } = (value ?? {}) as { kind?: unknown };
  return kind === 'note' ? note(value) : kind === 'bar' ? bar(value) : rest(value);
};

const fields = shape(
  {
    schemaVersion: among([1]),
    title: (value) => words(1, MOST.title)(value) && (value as string).trim() === value,
    danceType: orNull(among(DANCE_TYPES)),
    meter,
    key,
    tuning: list(4, 4, pitch),
    tempoBpm: orNull(between(10, 400)),
    start: orNull(direction),
    parts: list(1, MOST.parts, shape({ name: words(1, MOST.partName), events: list(1, MAX_EVENTS, event) })),
    form: list(1, MOST.form, words(0, MOST.partName)),
  },
  {
    composer: words(0, MOST.composer),
    source: words(0, MOST.source),
    notes: list(0, MOST.notes, words(0, MOST.noteLetters)),
    lilt: text(0, Infinity, LILT_NAME),
  },
);

/**
 * Whether a value is a tune document with nothing beside it. Never true where the document's schema would refuse the value or
 * change it; where it is false the schema has the last word, and the words. O(events).
 */
export function isTune(value: unknown): value is Tune {
  return fields(value) && holdsTogether(value as Tune);
}

/** What one field cannot tell: names and ids are different, what is named is there, and all of it is not too much. */
function holdsTogether({ parts, form }: Tune): boolean {
  const names = new Set(parts.map(({ name }) => name));
  if (names.size !== parts.length || !form.every((name) => names.has(name))) return false;
  const ids = new Set<string>();
  const ownBars = new Set<string>();
  const reused = new Set<string>();
  let count = 0;
  for (const { events } of parts) {
    if (events[0]!.kind !== 'bar') return false;
    count += events.length;
    for (const item of events) {
      ids.add(item.id);
      if (item.kind !== 'bar') continue;
      if (item.reuses === undefined) ownBars.add(item.id);
      else reused.add(item.reuses);
    }
  }
  if (ids.size !== count || count > MAX_EVENTS || playedEvents({ parts, form }) > MAX_PLAYED_EVENTS) return false;
  if (lengthFault({ parts, form })) return false;
  return [...reused].every((taken) => ownBars.has(taken));
}
