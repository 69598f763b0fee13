import { z } from 'zod';
import { neighbourAngle } from '#core/crossing';
import { DEFAULT_EAR, type EarWeights } from '#core/drones';
import { BAN_REASONS, FREE_HAND, type Hand } from '#core/fingering';
import { type Instrument, instrumentWith } from '#core/instrument';
import { REFERENCE_PITCH } from '#core/pitch';
import { FINDING_CODES, type PlayerSettings } from '#core/report';
import { DEFAULT_SCHOOLS, SCHOOL_CHOICES, type Schools } from '#core/schools';
import { type Listening, MISTAKE_KINDS, PLAIN_LISTENING } from '#core/take';
import {
  AS_PLANNED,
  DEFAULT_REGION,
  DOTTED_RATIO_RANGE,
  findLilt,
  LILT_NAME,
  LILT_NOTES,
  type LiltFault,
  liltFault,
  LIMIT_KEYS,
  LIMIT_SOURCES,
  limitsWith,
  OWN_FACTOR_RANGE,
  REGIONS,
} from '#core/tempo';
import { DANCE_TYPES, PLACES } from '#core/tune';
import { route } from './route';

/** What each figure of fiddle and bow may be, in its own unit. */
export const INSTRUMENT_RANGES = {
  stringLengthMm: [150, 400],
  bridgeRadiusMm: [25, 80],
  stringSpacingMm: [6, 18],
  marginDegrees: [0, 5],
  hairCm: [20, 80],
  sweetSpotCm: [2, 78],
  windowHalfCm: [1, 40],
} as const satisfies Record<keyof Instrument, readonly [number, number]>;

/** Highest value of a limit: ten seconds, or ten times a factor, is beyond any player. */
const MAX_LIMIT = 10_000;

const figure = ([low, high]: readonly [number, number]) =>
  z
    .number({ error: ({ input }) => `expected a number from ${low} to ${high}, got ${JSON.stringify(input)}` })
    .refine((value) => value >= low && value <= high, {
      error: ({ input }) => `expected ${low} to ${high}, got ${String(input)}`,
    })
    .optional();

const instrumentFields = Object.fromEntries(
  Object.entries(INSTRUMENT_RANGES).map(([name, range]) => [name, figure(range)]),
) as Record<keyof Instrument, ReturnType<typeof figure>>;
const instrumentSchema = z.object(instrumentFields).superRefine(fitTogether);
/** The figures of a file: what is none is refused. */
export const instrumentFileSchema = z.strictObject(instrumentFields).superRefine(fitTogether);

/** Each string has an angle of its own, and the sweet spot lies on the hair. */
function fitTogether(given: { readonly [K in keyof Instrument]?: number | undefined }, context: z.RefinementCtx): void {
  const figures = instrumentWith(definedOnly(given));
  const { hairCm, sweetSpotCm, marginDegrees, stringSpacingMm, bridgeRadiusMm } = figures;
  const refuse = (path: keyof Instrument, message: string) =>
    context.addIssue({ code: 'custom', path: [path], message });
  if (sweetSpotCm > hairCm) refuse('sweetSpotCm', `expected a place on the ${hairCm} cm of hair, got ${sweetSpotCm}`);
  if (stringSpacingMm >= 2 * bridgeRadiusMm)
    return refuse(
      'stringSpacingMm',
      `expected less than twice the bridge radius of ${bridgeRadiusMm} mm, got ${stringSpacingMm}: the strings would not lie on its arc`,
    );
  const half = neighbourAngle(figures) / 2;
  if (marginDegrees >= half)
    refuse(
      'marginDegrees',
      `expected less than ${half.toFixed(1)}, half the angle between two strings, got ${marginDegrees}: no string would have an angle of its own`,
    );
}

/** A limit's figure, in the unit that its name tells. */
export const limitValue = z
  .number({ error: ({ input }) => `expected a number above 0, got ${JSON.stringify(input)}` })
  .refine((value) => value > 0 && value <= MAX_LIMIT, {
    error: ({ input }) => `expected more than 0, ${MAX_LIMIT} at most, got ${String(input)}`,
  });
export const limitDate = z.iso.date({
  error: ({ input }) => `expected a day such as 2026-03-02, got ${JSON.stringify(input)}`,
});
const limitSchema = z.object({
  value: limitValue,
  source: z.enum(LIMIT_SOURCES),
  date: limitDate.optional(),
  attempts: z.int().min(0).optional(),
});

/** Earlier names of choices, by school. */
const RENAMED: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  arm: { elbow: 'early', wrist: 'middle' },
};

/** Limits that an earlier version kept and this one has no use for are left out. */
function knownLimits(value: unknown): unknown {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
  return Object.fromEntries(Object.entries(value).filter(([key]) => key !== 'slurCrossingFactor'));
}

/** Schools of a file: those that are told, each among its choices. */
export const schoolsFileSchema = z.strictObject(
  Object.fromEntries(
    Object.entries(SCHOOL_CHOICES).map(([name, choices]) => [
      name,
      z
        .enum(choices, {
          error: ({ input }) => `expected ${choices.join(' or ')}, got ${JSON.stringify(input)}`,
        })
        .optional(),
    ]),
  ),
) as unknown as z.ZodType<Partial<Schools>>;

/** What an earlier version did not know yet is as usual. */
const schoolsSchema = z.object(
  Object.fromEntries(
    Object.entries(SCHOOL_CHOICES).map(([name, choices]) => [
      name,
      z
        .preprocess((value) => RENAMED[name]?.[String(value)] ?? value, z.enum(choices).optional())
        .transform((value) => value ?? choices[0]),
    ]),
  ),
) as unknown as z.ZodType<Schools>;

/** Spans narrower than this leave no hand, wider than this no fiddle asks for. */
export const SPAN_RANGE = [20, 150] as const;
const MAX_BANS = 24;

const banSchema = z
  .object({
    finger: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4), z.null()]),
    place: z.enum(PLACES).nullable(),
    reason: z.enum(BAN_REASONS),
    date: z.iso.date().optional(),
  })
  .refine(({ finger, place }) => finger !== null || place !== null, 'names a finger, a string or both');

const handSchema: z.ZodType<Hand> = z.object({
  largestSpanMm: z
    .number()
    .min(SPAN_RANGE[0], `expected ${SPAN_RANGE[0]} to ${SPAN_RANGE[1]}`)
    .max(SPAN_RANGE[1], `expected ${SPAN_RANGE[0]} to ${SPAN_RANGE[1]}`)
    .nullable(),
  bans: z.array(banSchema).max(MAX_BANS),
  vibrato: z.boolean(),
  firstPositionOnly: z.boolean(),
});

/** Tempos that a band may name. */
export const BAND_RANGE = [20, 300] as const;
const bandTempo = z
  .number()
  .min(BAND_RANGE[0], `expected ${BAND_RANGE[0]} to ${BAND_RANGE[1]}`)
  .max(BAND_RANGE[1], `expected ${BAND_RANGE[0]} to ${BAND_RANGE[1]}`);
const bandsSchema = z.object({
  region: z.enum(REGIONS),
  own: z.partialRecord(
    z.enum(DANCE_TYPES),
    z
      .object({ low: bandTempo, high: bandTempo })
      .refine(({ low, high }) => low < high, 'expected the lower tempo before the higher'),
  ),
});

const dottedRatio = z
  .number()
  .min(DOTTED_RATIO_RANGE[0], `expected ${DOTTED_RATIO_RANGE[0]} to ${DOTTED_RATIO_RANGE[1]}`)
  .max(DOTTED_RATIO_RANGE[1], `expected ${DOTTED_RATIO_RANGE[0]} to ${DOTTED_RATIO_RANGE[1]}`);

const MAX_LILTS = 20;
const shares = z.array(z.number().positive().max(1)).min(LILT_NOTES.min).max(LILT_NOTES.max).nullable();
/** What is wrong with a lilt, for a program that sent it; a player is told with figures where it is made. */
const LILT_ISSUES: Readonly<Record<LiltFault['code'], string>> = {
  curve: 'expected a tempo up to which it is full, and a flattening, both more than 0',
  shares: 'expected shares of each beat that are more than 0 and sum to 1',
  grows: 'expected shares and a flattening under which no note grows longer as the tempo rises',
};

const liltSchema = z
  .object({
    name: z
      .string()
      .regex(LILT_NAME, 'expected small letters, digits and hyphens')
      .refine((name) => findLilt(name) === null, 'a lilt of that name comes along already'),
    simple: shares,
    compound: shares,
    fullTo: z.number().min(20).max(400),
    flattening: z.number().min(0.1).max(4),
  })
  .superRefine((lilt, context) => {
    const fault = liltFault(lilt);
    if (fault) context.addIssue({ code: 'custom', message: LILT_ISSUES[fault.code] });
  });

/** Weights of the terms of a drone's rank, fitted by a listening test. */
const weight = z.number().min(0).max(10);
const earSchema: z.ZodType<EarWeights> = z.object({ roughness: weight, class: weight, role: weight });

/** A threshold in the unit of its mistake. */
const MAX_THRESHOLD = 1000;
const ownFactor = z.number().min(OWN_FACTOR_RANGE.min).max(OWN_FACTOR_RANGE.max);
/** How takes are listened to: the pitch of A4 in Hz, and from where on a mistake is told, where the player has it otherwise. */
const listeningSchema: z.ZodType<Listening> = z.object({
  a4: z
    .number()
    .min(REFERENCE_PITCH.min, `expected ${REFERENCE_PITCH.min} to ${REFERENCE_PITCH.max}`)
    .max(REFERENCE_PITCH.max, `expected ${REFERENCE_PITCH.min} to ${REFERENCE_PITCH.max}`),
  thresholds: z.partialRecord(z.enum(MISTAKE_KINDS), z.number().positive().max(MAX_THRESHOLD)),
  /** Played ÷ planned: what is played to the player is planned longer by it. */
  own: z.object({ hold: ownFactor, silence: ownFactor }).default(AS_PLANNED),
});

/** Words that differ from school to school; they change no figure. */
const wordsSchema = z.object({
  /** Phases of the shuffle by what comes first: the pair and the singles, or the long and the short. */
  phases: z.enum(['pair-first', 'long-first']),
  /** Which of the two is called a cut: the left hand's quick grace, or the bowed triplet. */
  cut: z.enum(['left-hand', 'bowed-triplet']).default('left-hand'),
  /** What a finger that brushes the string is called. */
  flick: z.enum(['flick', 'cran']).default('flick'),
});
export type Words = z.output<typeof wordsSchema>;

export const settingsSchema = z.object({
  instrument: instrumentSchema,
  limits: z.preprocess(knownLimits, z.partialRecord(z.enum(LIMIT_KEYS as [string, ...string[]]), limitSchema)),
  schools: schoolsSchema,
  words: wordsSchema,
  hand: handSchema.default(FREE_HAND),
  ear: earSchema.default(DEFAULT_EAR),
  /** Pictures and words are mirrored: the right hand fingers, the left one bows. */
  leftHanded: z.boolean().default(false),
  bands: bandsSchema.default(DEFAULT_REGION),
  listening: listeningSchema.default(PLAIN_LISTENING),
  dottedRatios: z.partialRecord(z.enum(DANCE_TYPES), dottedRatio).default({}),
  lilts: z
    .array(liltSchema)
    .max(MAX_LILTS)
    .refine(
      (lilts) => new Set(lilts.map(({ name }) => name)).size === lilts.length,
      'names are different from each other',
    )
    .default([]),
});
/** The player's settings as they are kept: figures left out are the usual ones. */
export type StoredSettings = z.output<typeof settingsSchema>;

export const DEFAULT_SETTINGS: StoredSettings = {
  instrument: {},
  limits: {},
  schools: DEFAULT_SCHOOLS,
  words: { phases: 'pair-first', cut: 'left-hand', flick: 'flick' },
  hand: FREE_HAND,
  ear: DEFAULT_EAR,
  leftHanded: false,
  bands: DEFAULT_REGION,
  listening: PLAIN_LISTENING,
  dottedRatios: {},
  lilts: [],
};

/** What the core counts with. */
export function playerSettings({
  instrument,
  limits,
  schools,
  hand,
  bands,
  dottedRatios,
  lilts,
}: StoredSettings): PlayerSettings {
  return {
    instrument: instrumentWith(definedOnly(instrument)),
    limits: limitsWith(limits),
    schools,
    hand,
    bands: { region: bands.region, own: definedOnly(bands.own) },
    dottedRatios: definedOnly(dottedRatios),
    lilts,
  };
}

export function definedOnly<T extends object>(figures: T): { [K in keyof T]?: Exclude<T[K], undefined> } {
  return Object.fromEntries(Object.entries(figures).filter(([, value]) => value !== undefined)) as never;
}

/** 0: nothing is kept yet, the usual settings hold. */
export const settingsRecordSchema = z.object({ revision: z.int().min(0), settings: settingsSchema });
export type SettingsRecord = z.output<typeof settingsRecordSchema>;

export const saveSettingsSchema = z.object({ baseRevision: z.int().min(0), settings: settingsSchema });

/** What a change of settings did to a tune of the book. */
export const changedTuneSchema = z.object({
  id: z.uuid(),
  title: z.string(),
  ceilingBpm: z.object({ before: z.number().nullable(), after: z.number().nullable() }),
  /** Turning of the arm or wrist over the whole tune, in degrees. */
  armDegrees: z.object({ before: z.number(), after: z.number() }),
  /** Furthest that the bow strays from the sweet spot at even speed, in centimetres. */
  strayCm: z.object({ before: z.number(), after: z.number() }),
  /** Notes that lie elsewhere for the hand, and the first of them. */
  refingered: z.object({
    notes: z.int(),
    first: z.array(z.object({ part: z.string(), bar: z.int(), before: z.string(), after: z.string() })),
  }),
  /** Findings that came and went, by code. */
  came: z.array(z.enum(FINDING_CODES)),
  went: z.array(z.enum(FINDING_CODES)),
});
export type ChangedTune = z.output<typeof changedTuneSchema>;

export const savedSettingsSchema = z.object({
  revision: z.int().min(1),
  /** Tunes whose figures or findings changed, as far as they were compared. */
  changed: z.array(changedTuneSchema),
  compared: z.int(),
});
export type SavedSettings = z.output<typeof savedSettingsSchema>;

export const settingsRoutes = {
  findSettings: route({ method: 'GET', path: '/api/settings', answer: settingsRecordSchema }),
  saveSettings: route({
    method: 'PUT',
    path: '/api/settings',
    body: saveSettingsSchema,
    answer: savedSettingsSchema,
    errors: ['stale-save'],
  }),
};
