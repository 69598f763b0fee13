import { z } from 'zod';
import { PLACES } from '#core/tune';
import { parseTuning, STANDARD_TUNING, TENSION_NEWTONS, tuningName } from '#core/tuning';
import { type UpkeepIntervals, USUAL_INTERVALS } from '#core/upkeep';
import { tuningFault } from '#formats/text';
import { route } from './route';
import { INSTRUMENT_RANGES } from './settings';

/** Most of each that is kept. */
const MAX_FIDDLES = 12;
const MAX_TUNINGS = 60;
const MAX_CHECKS = 400;
const MAX_GAPS = 200;
const MAX_VARIANTS = 8;

const shortText = (what: string) =>
  z.string().trim().min(1, `expected ${what}`).max(60, `expected ${what} of at most 60 letters`);
const within = ([low, high]: readonly [number, number]) =>
  z.number().min(low, `expected ${low} to ${high}`).max(high, `expected ${low} to ${high}`);

/** Why no fiddle is brought into a tuning; null where it may be, or where the text is none. */
export function implausibleTuning(text: string): string | null {
  const tuning = parseTuning(text);
  return tuning && tuningFault(tuning);
}

/** A tuning as it is typed: four pitches low to high, which a fiddle can be brought into. */
export const tuningText = z
  .string()
  .max(40)
  .superRefine((text, context) => {
    const refuse = (message: string) => context.addIssue({ code: 'custom', message });
    if (!parseTuning(text))
      return refuse(`expected four pitches low to high with octaves, such as A3 E4 A4 E5, got "${text}"`);
    const message = implausibleTuning(text);
    if (message) refuse(message);
  })
  .transform((text) => tuningName(parseTuning(text) ?? STANDARD_TUNING));

const ownTuningSchema = z.object({
  id: z.uuid(),
  name: shortText('a name'),
  strings: tuningText,
  /** Who tunes it so; empty: not known. */
  source: z.string().trim().max(60),
  /** Who or what says that the tuning belongs to which tune; variants differ, and all are kept. */
  variants: z.array(z.object({ strings: tuningText, source: shortText('where it is from') })).max(MAX_VARIANTS),
});
export type OwnTuning = z.output<typeof ownTuningSchema>;

const stringSchema = z.object({
  name: z.string().max(60),
  /** ISO date on which it was fitted; null: not known. */
  fittedOn: z.iso.date().nullable(),
  hours: z.number().min(0).max(5000),
  /** When it had those hours: what is logged since is added. null: they are as they were told. */
  hoursOn: z.iso.date().nullable().default(null),
  /** Tension at its usual pitch, from the string maker. */
  newtons: z.number().min(10, 'expected 10 to 120').max(120, 'expected 10 to 120'),
});

const interval = (max: number) =>
  z.number().positive('expected more than 0').max(max, `expected at most ${max}`).nullable();
const intervalsSchema: z.ZodType<UpkeepIntervals> = z.object({
  stringHours: interval(5000),
  stringMonths: interval(240),
  rosinHours: interval(500),
  rehairHours: interval(5000),
  rehairMonths: interval(240),
  gapMm: interval(20),
});

const checkSchema = z.object({
  place: z.enum(PLACES),
  /** When the string was last brought to its pitch, and when it was read. */
  tunedAt: z.iso.datetime(),
  at: z.iso.datetime(),
  cents: z.number().min(-600).max(600),
  /** Semitones of the change that it drifts back from, and whether the string was new. */
  change: z.int().min(-12).max(12),
  isNew: z.boolean(),
});
export type PegCheck = z.output<typeof checkSchema>;

const fiddleSchema = z.object({
  id: z.uuid(),
  name: shortText('a name'),
  stringLengthMm: within(INSTRUMENT_RANGES.stringLengthMm),
  bridgeRadiusMm: within(INSTRUMENT_RANGES.bridgeRadiusMm),
  hairCm: within(INSTRUMENT_RANGES.hairCm),
  isOld: z.boolean(),
  strings: z.array(stringSchema).length(4),
  /** How it is tuned now. */
  tuning: tuningText,
  /** Hair gap at the middle of the bow, as it was measured. */
  hairGaps: z
    .array(
      z.object({
        date: z.iso.date(),
        mm: z.number().min(0).max(30),
        /** Beats a minute that it was played at; null: not told. */
        bpm: z.number().min(10).max(400).nullable().default(null),
      }),
    )
    .max(MAX_GAPS),
  rosinedOn: z.iso.date().nullable().default(null),
  rehairedOn: z.iso.date().nullable().default(null),
  /** After how much the player wants to be reminded; null: never. */
  intervals: intervalsSchema.default(USUAL_INTERVALS),
  checks: z.array(checkSchema).max(MAX_CHECKS),
});
export type Fiddle = z.output<typeof fiddleSchema>;

export const pegsSchema = z
  .object({
    fiddles: z.array(fiddleSchema).min(1).max(MAX_FIDDLES),
    chosen: z.uuid(),
    tunings: z.array(ownTuningSchema).max(MAX_TUNINGS),
  })
  .refine(({ fiddles, chosen }) => fiddles.some(({ id }) => id === chosen), {
    path: ['chosen'],
    message: 'names a fiddle that is kept',
  });
/** Fiddles, their strings and checks, and the player's own tunings. */
export type Pegs = z.output<typeof pegsSchema>;

const FIRST_FIDDLE = '7b8f4a10-5c0e-4d53-9a3e-3f1d7d2f6a01';

export function newFiddle(id: string, name: string): Fiddle {
  return {
    id,
    name,
    stringLengthMm: 328,
    bridgeRadiusMm: 42,
    hairCm: 63,
    isOld: false,
    strings: TENSION_NEWTONS.map((newtons) => ({ name: '', fittedOn: null, hours: 0, hoursOn: null, newtons })),
    tuning: tuningName(STANDARD_TUNING),
    hairGaps: [],
    rosinedOn: null,
    rehairedOn: null,
    intervals: USUAL_INTERVALS,
    checks: [],
  };
}

export const DEFAULT_PEGS: Pegs = {
  fiddles: [newFiddle(FIRST_FIDDLE, 'My fiddle')],
  chosen: FIRST_FIDDLE,
  tunings: [],
};

/** 0: nothing is kept yet. */
export const pegsRecordSchema = z.object({ revision: z.int().min(0), pegs: pegsSchema });
export type PegsRecord = z.output<typeof pegsRecordSchema>;

export const savePegsSchema = z.object({ baseRevision: z.int().min(0), pegs: pegsSchema });
export const savedPegsSchema = z.object({ revision: z.int().min(1) });
export type SavedPegs = z.output<typeof savedPegsSchema>;

/** Oldest checks are let go where there are more than are kept. */
export function withChecks(fiddle: Fiddle, checks: readonly PegCheck[]): Fiddle {
  return { ...fiddle, checks: [...fiddle.checks, ...checks].slice(-MAX_CHECKS) };
}

export const pegsRoutes = {
  findPegs: route({ method: 'GET', path: '/api/pegs', answer: pegsRecordSchema }),
  savePegs: route({
    method: 'PUT',
    path: '/api/pegs',
    body: savePegsSchema,
    answer: savedPegsSchema,
    errors: ['stale-save'],
  }),
};
