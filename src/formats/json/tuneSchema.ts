import { z } from 'zod';
import { POSITIONS } from '#core/fingering';
import { LETTERS, MODES } from '#core/pitch';
import { HOLD_RANGE, LILT_NAME, MAX_BREATH, PACE_RANGE } from '#core/tempo';
import { MIN_WISH, MAX_WISH } from '#core/travel';
import {
  type BarEvent,
  DANCE_TYPES,
  LINKS,
  NOTE_MARKS,
  type NoteEvent,
  PLACES,
  type RestEvent,
  type Tune,
  lengthFault,
} from '#core/tune';
import { lengthWords, tuningFault } from '../text';
import { isTune } from './isTune';
import { ID_WORDS, MOST, MAX_COUNT, MAX_EVENTS, MAX_PLAYED_EVENTS, WORDS, playedEvents } from './bounds';

const words = z.string().regex(WORDS, 'holds a character that cannot be kept');

const fraction = z
  .object({ n: z.int().min(0).max(MAX_COUNT), d: z.int().min(1).max(MAX_COUNT) })
  .describe('exact length in whole notes: n/d');
const pitch = z.object({ letter: z.enum(LETTERS), alter: z.int().min(-2).max(2), octave: z.int().min(-1).max(9) });
const meter = z.object({
  num: z.int().min(1).max(64),
  den: z.union([z.literal(1), z.literal(2), z.literal(4), z.literal(8), z.literal(16), z.literal(32)]),
  symbol: z.enum(['common', 'cut']).optional(),
});
const key = z.object({
  letter: z.enum(LETTERS),
  alter: z.int().min(-1).max(1),
  mode: z.enum(MODES),
  extra: z
    .array(z.object({ letter: z.enum(LETTERS), alter: z.int().min(-2).max(2) }))
    .max(7)
    .optional(),
});
const id = z.string().min(1).max(MOST.id).regex(ID_WORDS, 'holds a character that cannot be kept');
const direction = z.enum(['down', 'up']);
const link = z.enum(LINKS);
const tuplet = z.object({
  notes: z.int().min(2).max(64),
  inTimeOf: z.int().min(1).max(64),
  first: z.literal(true).optional(),
});
const chord = words.max(MOST.chord).optional();

/** A schema for every field of a type: one that is left out would be dropped when a tune is kept. */
type Fields<T> = { readonly [K in keyof Required<T>]: z.ZodType };

const note = z.object({
  kind: z.literal('note'),
  id,
  duration: fraction.refine(({ n }) => n > 0, 'a note lasts longer than 0'),
  pitch,
  stops: z.array(pitch).max(MOST.stops).optional(),
  graceNotes: z.array(pitch).max(MOST.graceNotes).optional(),
  tie: z.literal(true).optional(),
  link,
  linkOnPass: z.record(z.string().regex(/^[1-9]\d{0,2}$/), link).optional(),
  lock: direction.optional(),
  place: z.enum(PLACES).optional(),
  finger: z.int().min(0).max(4).optional(),
  position: z
    .number()
    .refine((value) => (POSITIONS as readonly number[]).includes(value), `one of ${POSITIONS.join(', ')}`)
    .optional(),
  tuplet: tuplet.optional(),
  chord,
  marks: z.array(z.enum(NOTE_MARKS)).max(NOTE_MARKS.length).optional(),
  drone: z.enum(['lower', 'upper']).optional(),
  bowLength: z.number().min(MIN_WISH).max(MAX_WISH).optional(),
  hold: z.number().min(HOLD_RANGE.least).max(HOLD_RANGE.most).optional(),
  breath: z.number().positive().max(MAX_BREATH).optional(),
  pace: z.number().min(PACE_RANGE.least).max(PACE_RANGE.most).optional(),
} satisfies Fields<NoteEvent>);
const rest = z.object({
  kind: z.literal('rest'),
  id,
  duration: fraction,
  tuplet: tuplet.optional(),
  chord,
} satisfies Fields<RestEvent>);
const bar = z.object({
  kind: z.literal('bar'),
  id,
  onPlays: z.array(z.int().min(1).max(999)).min(1).max(MOST.onPlays).optional(),
  ending: z.literal(true).optional(),
  meter: meter.optional(),
  key: key.optional(),
  reuses: id.optional(),
} satisfies Fields<BarEvent>);

/** The document, version 1, field by field, with words for what is wrong; it may not part ways with the core's own type. */
export const documentSchema: z.ZodType<Tune> = z
  .object({
    schemaVersion: z.literal(1),
    title: words.trim().min(1, 'a tune has a title').max(MOST.title),
    composer: words.max(MOST.composer).optional(),
    source: words.max(MOST.source).optional(),
    notes: z.array(words.max(MOST.noteLetters)).max(MOST.notes).optional(),
    danceType: z.enum(DANCE_TYPES).nullable(),
    meter,
    key,
    tuning: z.tuple([pitch, pitch, pitch, pitch]),
    tempoBpm: z.number().min(10).max(400).nullable(),
    lilt: z.string().regex(LILT_NAME, 'a lilt is called by small letters, digits and hyphens').optional(),
    start: direction.nullable(),
    parts: z
      .array(
        z.object({
          name: words.min(1).max(MOST.partName),
          events: z.array(z.discriminatedUnion('kind', [note, rest, bar])),
        }),
      )
      .min(1)
      .max(MOST.parts),
    form: z.array(words.max(MOST.partName)).min(1).max(MOST.form),
  } satisfies Fields<Tune>)
  .superRefine((tune, context) => {
    const refuse = (message: string, path: (string | number)[]) => context.addIssue({ code: 'custom', message, path });
    const names = new Set(tune.parts.map(({ name }) => name));
    if (names.size !== tune.parts.length) refuse('part names are different from each other', ['parts']);
    for (const [i, name] of tune.form.entries())
      if (!names.has(name)) refuse(`names a part: one of ${[...names].join(', ')}`, ['form', i]);
    const ids = new Set<string>();
    for (const [p, part] of tune.parts.entries()) {
      if (part.events[0]?.kind !== 'bar') refuse('a part begins with a bar', ['parts', p, 'events', 0]);
      for (const [e, event] of part.events.entries()) {
        if (ids.has(event.id)) refuse('ids are different from each other', ['parts', p, 'events', e, 'id']);
        ids.add(event.id);
      }
    }
    const bars = new Map(
      tune.parts.flatMap(({ events }) =>
        events.flatMap((event) => (event.kind === 'bar' ? [[event.id, event] as const] : [])),
      ),
    );
    for (const [p, part] of tune.parts.entries())
      for (const [e, event] of part.events.entries()) {
        if (event.kind !== 'bar' || event.reuses === undefined) continue;
        const taken = bars.get(event.reuses);
        if (!taken || taken.reuses !== undefined)
          refuse('takes up a bar that has its own notes', ['parts', p, 'events', e, 'reuses']);
      }
    const fault = lengthFault(tune as Tune);
    if (fault)
      refuse(
        lengthWords(fault),
        fault.part === null ? ['form'] : ['parts', fault.part, 'events', fault.event!, 'duration'],
      );
    const played = playedEvents(tune as Tune);
    if (played > MAX_PLAYED_EVENTS)
      refuse(`plays at most ${MAX_PLAYED_EVENTS} events, this one plays ${played}`, ['form']);
  });

/** Events of all parts, as far as a value has such; 0 where it has none. */
function countEvents(value: unknown): number {
  const parts = (value as { parts?: unknown } | null | undefined)?.parts;
  if (!Array.isArray(parts)) return 0;
  return parts.reduce<number>((sum, part: unknown) => {
    const events = (part as { events?: unknown } | null | undefined)?.events;
    return sum + (Array.isArray(events) ? events.length : 0);
  }, 0);
}

/**
 * The tune document as it is stored and exchanged. Nearly every one is as it should be: that is told in a tenth of the time
 * that going through it field by field takes, which is done only to say what is wrong with one.
 */
export const tuneSchema = z.unknown().transform((value, context): Tune => {
  if (isTune(value)) return value;
  // What is too much as a whole is not gone through piece by piece.
  const events = countEvents(value);
  if (events > MAX_EVENTS) {
    context.addIssue({
      code: 'custom',
      path: ['parts'],
      message: `at most ${MAX_EVENTS} events, this one has ${events}`,
    });
    return z.NEVER;
  }
  const parsed = documentSchema.safeParse(value);
  if (parsed.success) return parsed.data;
  for (const { path, message } of parsed.error.issues) context.addIssue({ code: 'custom', path: [...path], message });
  return z.NEVER;
});

/**
 * A tune that comes in from outside: its strings also stand as a fiddle's may. What is stored already is read and saved as
 * it is, so that nothing is shut away by a rule that came after it.
 */
export const newTuneSchema = tuneSchema.superRefine(({ tuning }, context) => {
  const fault = tuningFault(tuning);
  if (fault) context.addIssue({ code: 'custom', path: ['tuning'], message: fault });
});
