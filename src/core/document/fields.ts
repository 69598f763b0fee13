import { POSITIONS } from '#core/fingering';
import { type Key, LETTERS, MODES } from '#core/pitch';
import { HOLD_RANGE, LILT_NAME, MAX_BREATH, PACE_RANGE } from '#core/tempo';
import { MAX_WISH, MIN_WISH } from '#core/travel';
import {
  type BarEvent,
  DANCE_TYPES,
  LINKS,
  type Meter,
  NOTE_MARKS,
  type NoteEvent,
  type Part,
  PLACES,
  type RestEvent,
  type Tune,
  type TuneEvent,
  type TupletMark,
} from '#core/tune';
import { ID_WORDS, MAX_ITEMS, MAX_LETTERS, WORDS } from './bounds';
import {
  among,
  amount,
  type Fields,
  type FieldType,
  four,
  kinds,
  lasting,
  list,
  mapped,
  needed,
  object,
  optional,
  orNull,
  pitched,
  type ShapedFields,
  text,
  whole,
} from './fieldType';

const CANNOT_BE_KEPT = 'holds a character that cannot be kept';

const words = (max: number) => text({ pattern: WORDS, expected: CANNOT_BE_KEPT, max });
const id = text({ pattern: ID_WORDS, expected: CANNOT_BE_KEPT, min: 1, max: MAX_LETTERS.id });
const partName = text({ pattern: WORDS, expected: CANNOT_BE_KEPT, min: 1, max: MAX_LETTERS.partName });
const direction = among(['down', 'up']);
const link = among(LINKS);
const yes = among([true]);
const letter = among(LETTERS);
const chord = words(MAX_LETTERS.chord);

const meter = object<Meter>({
  num: needed(whole(1, 64)),
  den: needed(among([1, 2, 4, 8, 16, 32])),
  symbol: optional(among(['common', 'cut'])),
});
const key = object<Key>({
  letter: needed(letter),
  alter: needed(whole(-1, 1)),
  mode: needed(among(MODES)),
  extra: optional(
    list(
      object<NonNullable<Key['extra']>[number]>({ letter: needed(letter), alter: needed(whole(-2, 2)) }),
      0,
      MAX_ITEMS.extra,
    ),
  ),
});
const tuplet = object<TupletMark>({
  notes: needed(whole(2, 64)),
  inTimeOf: needed(whole(1, 64)),
  first: optional(yes),
});

/** What a field of a note is called where two versions of a tune are told apart; null: told by other fields. */
export type NoteAspect =
  'link' | 'pass-links' | 'lock' | 'pitch' | 'length' | 'string' | 'mark' | 'drone' | 'bow-length' | 'freedom';

/** How plain notation says a field: by signs of its own, or not wholly, so that a line beside it has to. */
type Said = 'by-signs' | 'by-a-line';

/**
 * The fields of a written note, each with its type, what it is when versions are compared and how notation says it. A new
 * field is a row here and its use: schema, quick check, difference and files follow, and the compiler asks for the line that
 * plain notation needs.
 */
export const NOTE_FIELDS = {
  kind: { ...needed(among(['note'])), aspect: null, said: 'by-signs' },
  id: { ...needed(id), aspect: null, said: 'by-signs' },
  duration: { ...needed(lasting(true)), aspect: 'length', said: 'by-signs' },
  pitch: { ...needed(pitched), aspect: 'pitch', said: 'by-a-line' },
  stops: { ...optional(list(pitched, 0, MAX_ITEMS.stops)), aspect: 'pitch', said: 'by-signs' },
  graceNotes: { ...optional(list(pitched, 0, MAX_ITEMS.graceNotes)), aspect: 'pitch', said: 'by-signs' },
  tie: { ...optional(yes), aspect: 'length', said: 'by-signs' },
  link: { ...needed(link), aspect: 'link', said: 'by-a-line' },
  linkOnPass: { ...optional(mapped(/^[1-9]\d{0,2}$/, link)), aspect: 'pass-links', said: 'by-a-line' },
  lock: { ...optional(direction), aspect: 'lock', said: 'by-signs' },
  place: { ...optional(among(PLACES)), aspect: 'string', said: 'by-a-line' },
  finger: { ...optional(whole(0, 4)), aspect: 'string', said: 'by-signs' },
  position: {
    ...optional(among(POSITIONS, `one of ${POSITIONS.join(', ')}`)),
    aspect: 'string',
    said: 'by-a-line',
  },
  tuplet: { ...optional(tuplet), aspect: null, said: 'by-signs' },
  chord: { ...optional(chord), aspect: 'mark', said: 'by-signs' },
  marks: { ...optional(list(among(NOTE_MARKS), 0, NOTE_MARKS.length)), aspect: 'mark', said: 'by-a-line' },
  drone: { ...optional(among(['lower', 'upper'])), aspect: 'drone', said: 'by-a-line' },
  bowLength: { ...optional(amount({ min: MIN_WISH, max: MAX_WISH })), aspect: 'bow-length', said: 'by-a-line' },
  hold: { ...optional(amount(HOLD_RANGE)), aspect: 'freedom', said: 'by-a-line' },
  breath: { ...optional(amount({ above: 0, max: MAX_BREATH })), aspect: 'freedom', said: 'by-a-line' },
  pace: { ...optional(amount(PACE_RANGE)), aspect: 'freedom', said: 'by-a-line' },
} as const satisfies Fields<NoteEvent, { readonly aspect: NoteAspect | null; readonly said: Said }>;

/** Fields of a note that need a line beside plain notation. */
export type LinedField = {
  [K in keyof typeof NOTE_FIELDS]: (typeof NOTE_FIELDS)[K]['said'] extends 'by-a-line' ? K : never;
}[keyof typeof NOTE_FIELDS];

const REST_FIELDS: Fields<RestEvent> = {
  kind: needed(among(['rest'])),
  id: needed(id),
  duration: needed(lasting(false)),
  tuplet: optional(tuplet),
  chord: optional(chord),
};

const BAR_FIELDS: Fields<BarEvent> = {
  kind: needed(among(['bar'])),
  id: needed(id),
  onPlays: optional(list(whole(1, 999), 1, MAX_ITEMS.onPlays)),
  ending: optional(yes),
  meter: optional(meter),
  key: optional(key),
  reuses: optional(id),
};

const event: FieldType<TuneEvent> = kinds({
  note: NOTE_FIELDS as ShapedFields,
  rest: REST_FIELDS as ShapedFields,
  bar: BAR_FIELDS as ShapedFields,
});

/** The document, version 1. */
export const TUNE_FIELDS: Fields<Tune> = {
  schemaVersion: needed(among([1])),
  title: needed(
    text({
      pattern: WORDS,
      expected: CANNOT_BE_KEPT,
      isTrimmed: true,
      min: 1,
      expectedMin: 'a tune has a title',
      max: MAX_LETTERS.title,
    }),
  ),
  composer: optional(words(MAX_LETTERS.composer)),
  source: optional(words(MAX_LETTERS.source)),
  notes: optional(list(words(MAX_LETTERS.note), 0, MAX_ITEMS.notes)),
  danceType: needed(orNull(among(DANCE_TYPES))),
  meter: needed(meter),
  key: needed(key),
  tuning: needed(four(pitched)),
  tempoBpm: needed(orNull(amount({ min: 10, max: 400 }))),
  lilt: optional(text({ pattern: LILT_NAME, expected: 'a lilt is called by small letters, digits and hyphens' })),
  start: needed(orNull(direction)),
  parts: needed(list(object<Part>({ name: needed(partName), events: needed(list(event, 0)) }), 1, MAX_ITEMS.parts)),
  form: needed(list(words(MAX_LETTERS.partName), 1, MAX_ITEMS.form)),
};
