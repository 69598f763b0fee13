import { z } from 'zod';
import { INTERVAL_CLASSES } from '#core/drones';
import { ORNAMENTS } from '#core/ornaments';
import { COST_TERMS } from '#core/search';
import { EVENT_KINDS, LIMIT_KEYS, LIMIT_SOURCES } from '#core/tempo';
import { LINKS, PLACES } from '#core/tune';
import { IMPORT_CODES } from '#formats/text';

const direction = z.enum(['down', 'up']);
const noteRef = z.object({ id: z.string(), part: z.string(), pass: z.int() });
const event = z.object({
  kind: z.enum(EVENT_KINDS),
  availableMs: z.number(),
  neededMs: z.number(),
});

const passSchema = z.object({
  part: z.string(),
  pass: z.int().min(1),
  ending: z.int().nullable(),
  pickup: direction.nullable().describe("direction of the pickup's first stroke"),
  entry: direction.nullable().describe('what sounds at beat 1 of the first full bar'),
  strokes: z.int(),
  turns: z.int().describe('change links in the pass'),
  exit: direction.nullable(),
  next: direction.nullable().describe('what sounds at beat 1 of the next pass, or of the tune begun again'),
});

const hopOption = z.object({ by: z.enum(['barre', 'hop', 'other-finger', 'prepare']), cost: z.number() });

const noteSchema = z.object({
  index: z.int(),
  id: z.string(),
  part: z.string(),
  pass: z.int(),
  bar: z.int().describe('as played within the pass, from 1; 0 is the pickup'),
  beat: z.number().describe("1 + onset in the bar in units of the meter's denominator"),
  onset: z.string().describe('exact, in whole notes'),
  duration: z.string().describe('exact, in whole notes'),
  onsetSeconds: z.number(),
  durationSeconds: z.number(),
  pitch: z.string(),
  midi: z.int(),
  place: z.enum(PLACES),
  finger: z.int().nullable(),
  position: z.number().nullable().describe('0.5 is half position'),
  reachable: z.boolean(),
  stops: z.array(z.string()),
  stopFingers: z.array(z.object({ place: z.enum(PLACES), finger: z.int() }).nullable()),
  graceNotes: z.array(z.string()),
  drones: z.array(z.string()),
  ornaments: z.array(z.enum(ORNAMENTS)),
  hand: z.object({
    preparationSeconds: z.number().nullable().describe('since when the finger is free; null for an open string'),
    mayLieFrom: z.int().nullable().describe('index of the first note at whose beginning the finger may already lie'),
    sets: z.array(z.int()).nullable().describe('fingers set together here because a run falls, the highest first'),
    staysThrough: z.int().nullable().describe('index of the last note through which the finger may stay down'),
    dronesThrough: z.int().nullable().describe('index of the last note under or over which it can be held as a drone'),
    lean: z.enum(['either', 'lower', 'upper', 'none']).nullable(),
    hop: z
      .object({ finger: z.int(), from: z.enum(PLACES), to: z.enum(PLACES), options: z.array(hopOption) })
      .nullable(),
    shift: z
      .object({
        from: z.number(),
        to: z.number(),
        mm: z.number(),
        guide: z.string().nullable(),
        audible: z.boolean(),
        wayBack: z.int().nullable(),
      })
      .nullable(),
    barre: z.boolean(),
    spanMm: z.number().nullable(),
  }),
  link: z.enum(LINKS),
  bow: direction,
  stroke: z.int(),
  inStroke: z.int(),
  strokeNotes: z.int(),
  locked: direction.nullable(),
  bowStartCm: z.number(),
  bowEndCm: z.number(),
  speedCmPerSecond: z.number(),
  sharedStartCm: z.number().describe('with the hair shared out, on which all findings about hair rest'),
  sharedEndCm: z.number(),
  sharedSpeedCmPerSecond: z.number(),
  crossing: z
    .object({
      from: z.string(),
      to: z.string(),
      skips: z.int(),
      inSlur: z.boolean(),
      degrees: z.number().describe('between the planes'),
      turnDegrees: z.number().describe('left to turn at the crossing, in the arm school of the settings'),
      oval: z.enum(['natural', 'reverse', 'free']).nullable(),
    })
    .nullable(),
  arm: z.object({ low: z.number(), high: z.number(), angle: z.number() }).nullable(),
  events: z.array(event),
  headroom: z.number().nullable(),
});

const mendSchema = z.object({
  label: z.string(),
  ceilingBpm: z.number().nullable(),
  comesRound: z.boolean(),
  links: z.array(z.object({ id: z.string(), link: z.enum(LINKS), pass: z.int().nullable() })),
});

/** What `report --json` prints for one tune. */
export const reportSchema = z.object({
  schemaVersion: z.literal(1),
  title: z.string(),
  danceType: z.string().nullable(),
  meter: z.string(),
  key: z.string(),
  tuning: z.array(z.string()).length(4),
  lilt: z.string(),
  tempo: z.object({ bpm: z.number(), beat: z.string().describe('fraction of a whole note') }),
  bars: z.int(),
  seconds: z.number(),
  square: z.boolean(),
  start: z.object({ direction, because: z.enum(['given', 'locked', 'first-bar-down']) }),
  form: z.array(z.string()),
  passes: z.array(passSchema),
  comesRound: z.boolean(),
  comesRoundAgain: z.boolean(),
  againFrom: z.object({ note: z.string() }).nullable().describe('where the tune is taken up when it is played again'),
  oneDirection: z.boolean(),
  differs: z.array(z.object({ id: z.string(), directions: z.record(z.string(), direction), planned: z.boolean() })),
  notes: z.array(noteSchema),
  crossings: z.object({
    adjacent: z.int(),
    skip: z.int(),
    inSlur: z.int(),
    naturalOvals: z.int(),
    reverseOvals: z.int(),
    free: z.int(),
    armDegrees: z.number(),
    armDegreesNaive: z.number(),
  }),
  ceiling: z.object({ bpm: z.number(), event: event.shape.kind, note: noteRef }).nullable(),
  floor: z.object({ bpm: z.number(), event: z.literal('hair'), note: noteRef }).nullable(),
  tightest: z.array(
    z.object({
      note: noteRef,
      kind: event.shape.kind,
      availableMs: z.number(),
      neededMs: z.number(),
      ceilingBpm: z.number(),
    }),
  ),
  limits: z.record(
    z.enum(LIMIT_KEYS as [string, ...string[]]),
    z.object({
      value: z.number(),
      source: z.enum(LIMIT_SOURCES),
      date: z.string().optional(),
      attempts: z.int().optional(),
    }),
  ),
  instrument: z.object({
    stringLengthMm: z.number(),
    bridgeRadiusMm: z.number(),
    stringSpacingMm: z.number(),
    marginDegrees: z.number(),
    hairCm: z.number(),
    sweetSpotCm: z.number(),
    windowHalfCm: z.number(),
  }),
  findings: z.array(
    z.object({
      code: z.string(),
      severity: z.enum(['problem', 'care', 'note']),
      notes: z.array(z.string()),
      message: z.string(),
      mends: z.array(mendSchema),
    }),
  ),
  messages: z.array(
    z.object({
      line: z.int(),
      column: z.int(),
      severity: z.enum(['error', 'warning', 'info']),
      code: z.enum(IMPORT_CODES),
      message: z.string(),
    }),
  ),
  twins: z
    .array(
      z.object({
        length: z.int().describe('notes of the figure'),
        places: z.array(z.array(z.string())).describe('note ids of each place, in written order'),
        bowedAlike: z.boolean(),
        share: z.number().describe('of the playing time, 0 to 1, repeats counted'),
      }),
    )
    .describe('equal figures of four notes or more, those that cover most first'),
  doubleStops: z
    .array(
      z.object({
        index: z.int(),
        id: z.string(),
        place: z.enum(PLACES),
        pitch: z.string(),
        open: z.boolean(),
        interval: z.string(),
        class: z.enum(INTERVAL_CLASSES),
        roughness: z.number(),
        resolves: z.boolean(),
        role: z.enum(['root', 'fifth', 'third', 'other']),
        terms: z.object({ roughness: z.number(), class: z.number(), role: z.number() }),
        rank: z.number().describe('sum of the terms; less is better'),
        beats: z.number().nullable().describe('a second, finger at its tempered place against the open string'),
        pureCents: z.number().nullable(),
        pureMm: z.number().nullable(),
      }),
    )
    .describe('two strings that sound together, as played'),
  doublings: z
    .array(z.object({ index: z.int(), id: z.string(), open: z.enum(PLACES), finger: z.int(), on: z.enum(PLACES) }))
    .describe('open strings long enough to be doubled in unison on the next lower string'),
  noCandidates: z.string().optional().describe('why --optimise found nothing'),
  candidates: z
    .array(
      z.object({
        start: direction.describe("of the tune's first stroke"),
        links: z.array(z.tuple([z.string(), z.enum(LINKS)])),
        cost: z.number().describe('points of the objective'),
        idea: z.string().describe('the way of bowing a bar that it keeps to'),
        template: z
          .array(z.object({ bar: z.string(), template: z.string().nullable() }))
          .describe('by bar id, the way of bowing that the bar follows note for note'),
        regret: z
          .number()
          .describe('points more than the best that keeps to one template; below 0 where mixing them is better'),
        gap: z
          .number()
          .describe('points by which a bowing of the same idea could be better at most; 0: proven the best'),
        terms: z.record(z.enum(COST_TERMS), z.number()).describe('points of each term; they sum to the cost'),
        comesRound: z.boolean(),
        ceilingBpm: z.number().nullable(),
        likeness: z.number().describe('share of the links that are as now'),
        strokesPerSecond: z.number(),
        slurCrossings: z.int(),
        armDegreesPerBar: z.number(),
        driftCm: z.number(),
        locksContradicted: z.int(),
      }),
    )
    .describe('filled by --optimise K: bowings that really differ, cheapest first'),
});

export type Report = z.output<typeof reportSchema>;
