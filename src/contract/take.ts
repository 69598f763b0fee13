import { z } from 'zod';
import { DRILL_KINDS } from '#core/drills';
import { MISTAKE_KINDS } from '#core/take';

const figure = z.number().nullable();

/** What `take` says of a recording. */
export const takeSchema = z.object({
  notes: z.array(
    z.object({
      index: z.int().describe('of the played note, as in the report'),
      id: z.string(),
      loop: z.int().describe('which time round, from 1'),
      heard: z.boolean(),
      onset: figure.describe('seconds of the recording'),
      onsetUncertaintyMs: figure.describe('half of an 80 % interval, as all uncertainties'),
      offMs: figure.describe('against the player’s own time about the note'),
      cents: figure.describe('against equal temperament at the reference pitch'),
      centsUncertainty: figure,
      level: figure.describe('dB of full scale'),
      confidence: z.number(),
    }),
  ),
  tempo: z.object({ bpm: figure, driftPercentPerMinute: figure, driftUncertainty: figure, steadinessMs: figure }),
  lilt: z.array(
    z.object({
      position: z.number().describe('share of the beat'),
      offMs: z.number(),
      uncertaintyMs: z.number(),
      count: z.int(),
    }),
  ),
  offbeatDecibels: figure,
  holdFactor: figure.describe('played ÷ planned'),
  silenceFactor: figure,
  fingers: z.array(
    z.object({
      place: z.string(),
      semitones: z.int(),
      cents: z.number(),
      centsPerMinute: z.number(),
      uncertainty: z.number(),
      count: z.int(),
    }),
  ),
  heardNotes: z.int(),
  clean: z.boolean(),
  recording: z.object({ seconds: z.number(), sampleRate: z.number(), clipped: z.number(), promisedSeconds: figure }),
  findings: z.array(
    z.object({
      code: z.enum(MISTAKE_KINDS),
      notes: z.array(z.int()),
      loop: z.int(),
      seconds: z.number(),
      figure: z.number(),
      unit: z.enum(['ms', 'cents', 'dB', 'percent', 'notes']),
      uncertainty: z.number(),
      threshold: z.number(),
      drill: z.enum(DRILL_KINDS).nullable(),
      message: z.string(),
    }),
  ),
});
export type TakeJson = z.infer<typeof takeSchema>;

/** What `simulate --truth` writes. */
export const truthSchema = z.object({
  notes: z.array(
    z.object({
      index: z.int(),
      loop: z.int(),
      onset: figure,
      end: figure,
      cents: z.number(),
      played: z.boolean(),
    }),
  ),
  mistakes: z.array(
    z.object({ kind: z.enum(MISTAKE_KINDS), index: z.int(), loop: z.int(), seconds: z.number(), size: z.number() }),
  ),
});
