import { normalOf, type Seconds, seeded } from '#core/base';
import { REFERENCE_PITCH } from '#core/pitch';
import type { TuneReport } from '#core/report';
import { FULL_BALANCE, renderInBlocks, retuned, type SoundPlan } from '#core/sound';
import { DEFAULT_THRESHOLDS, type MistakeKind } from '#core/take';
import { placesOf } from './places';
import { playSteps } from './play';
import { type PlayerName, PLAYERS } from './players';
import { inRoom, withNoise } from './room';
import { type Mistake, stepsOf } from './steps';

export interface SimulateOptions {
  readonly player?: PlayerName;
  readonly mistakes?: readonly Mistake[];
  /** Notes by index; the whole tune where left out. */
  readonly span?: { readonly from: number; readonly to: number };
  readonly loops?: number;
  /** How much slower the tempo is at the end than at the beginning. */
  readonly driftPercent?: number;
  /** Signal to noise in dB; null: no noise at all. */
  readonly signalToNoise?: number | null;
  /** Time in which the room's echoes fall by 60 dB. */
  readonly room?: Seconds;
  readonly seed?: number;
  readonly sampleRate?: number;
  /** Pitch of A4, to which the fiddle is tuned. */
  readonly a4?: number;
  /** Silence before the first note. */
  readonly lead?: Seconds;
}

/** What was really played: times in seconds of the take. */
export interface Truth {
  readonly notes: readonly TruthNote[];
  readonly mistakes: readonly {
    readonly kind: MistakeKind;
    readonly index: number;
    readonly loop: number;
    readonly seconds: Seconds;
    readonly size: number;
  }[];
}

export interface TruthNote {
  readonly index: number;
  readonly loop: number;
  /** null where it was not played. */
  readonly onset: Seconds | null;
  readonly end: Seconds | null;
  readonly cents: number;
  readonly played: boolean;
}

const LEAD: Seconds = 0.6;
/** So soft that no limiter has a hand in it. */
const QUIET = { melody: 0.4, second: 0.4 } as const;

/** A mistake of twice its threshold, or of one vibrato too little. */
export function mistakeAt(kind: MistakeKind, index: number, size = usualSize(kind)): Mistake {
  return { kind, index, size };
}

function usualSize(kind: MistakeKind): number {
  if (kind === 'left-out' || kind === 'wrong-pass') return 1;
  if (kind === 'started-again') return 4;
  const { value, isLeast } = DEFAULT_THRESHOLDS[kind];
  return isLeast ? value / 2 : 2 * value;
}

/** Where mistakes asked for by kind alone are made: a seeded one of the places that are fit for it; null: none is. */
export function choosePlace(
  report: TuneReport,
  kind: MistakeKind,
  seed: number,
  span?: SimulateOptions['span'],
): number | null {
  const places = placesOf(report, kind).filter((i) => !span || (i >= span.from && i < span.to));
  return places.length === 0 ? null : places[Math.floor(seeded(seed)() * places.length)]!;
}

/**
 * A take of a simulated player: the plan played as such a player plays, in a room, with the mistakes asked for, and the
 * truth about it. The same seed, the same samples. Yields the share done.
 */
export function* simulateInBlocks(
  report: TuneReport,
  options: SimulateOptions = {},
): Generator<number, { readonly samples: Float32Array; readonly truth: Truth }> {
  const { room = 0, signalToNoise = null, seed = 1, sampleRate = 44100 } = options;
  const { plan, truth } = simulatedPlan(report, options);
  const tuned = retuned(plan, (options.a4 ?? REFERENCE_PITCH.usual) / REFERENCE_PITCH.usual);
  const blocks = renderInBlocks(tuned, { sampleRate, seed, balance: { ...FULL_BALANCE, ...QUIET } });
  let step = blocks.next();
  for (; !step.done; step = blocks.next()) yield 0.9 * step.value;
  const echoed = inRoom(step.value, sampleRate, room);
  return { samples: signalToNoise === null ? echoed : withNoise(echoed, signalToNoise, seed), truth };
}

/** The whole at once. */
export function simulate(report: TuneReport, options: SimulateOptions = {}) {
  const blocks = simulateInBlocks(report, options);
  let step = blocks.next();
  while (!step.done) step = blocks.next();
  return step.value;
}

function simulatedPlan(report: TuneReport, options: SimulateOptions): { plan: SoundPlan; truth: Truth } {
  const { player = 'steady', mistakes = [], loops = 1, driftPercent = 0, seed = 1, lead = LEAD } = options;
  const span = options.span ?? { from: 0, to: report.unrolled.notes.length };
  const traits = PLAYERS[player];
  const random = seeded(seed);
  const normal = normalOf(seeded(seed + 1));
  const steps = stepsOf(report, span, { loops, traits, mistakes, driftPercent, random });
  const { plan, times } = playSteps(report, steps, lead, () => traits.levelDecibels * normal());
  const at = new Map(times.map((time) => [`${time.step.loop} ${time.step.index}`, time]));
  const notes: TruthNote[] = [];
  for (let loop = 0; loop < loops; loop++)
    for (let index = span.from; index < span.to; index++) {
      const time = at.get(`${loop} ${index}`);
      const off = mistakes.find(
        (one) => one.index === index && (one.loop ?? 0) === loop && (one.kind === 'sharp' || one.kind === 'flat'),
      );
      const cents = (time?.step.cents ?? 0) + (off ? (off.kind === 'sharp' ? off.size : -off.size) : 0);
      notes.push({ index, loop, onset: time?.from ?? null, end: time?.to ?? null, cents, played: time !== undefined });
    }
  return {
    plan,
    truth: {
      notes,
      mistakes: mistakes.map(({ kind, index, loop = 0, size }) => ({
        kind,
        index,
        loop,
        size,
        seconds: (at.get(`${loop} ${index}`) ?? at.get(`${loop} ${index - 1}`) ?? times[0])?.from ?? 0,
      })),
    },
  };
}
