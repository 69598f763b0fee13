import { toNumber } from '#core/base';
import { droneScene, openDrones } from '#core/drones';
import { transposeToKey } from '#core/editing';
import { type Key, midiOf } from '#core/pitch';
import { danceBeat, type PlayerSettings, reportTune } from '#core/report';
import { PLACES, type Tune } from '#core/tune';
import { retunePlan, STANDARD_TUNING, type Tuning } from '#core/tuning';
import { changeTuning } from './changeTuning';
import { ringOf } from './ring';

/** What a tuning is weighed by, each as a share or a count a bar, so that long and short tunes compare. */
export const TUNING_TERMS = ['range', 'drones', 'ring', 'shifts', 'crossings', 'hops', 'retuning'] as const;
export type TuningTerm = (typeof TUNING_TERMS)[number];

/** Points of each term; good ones count against the cost. Guesses, to be weighed by the player. */
export const TUNING_WEIGHTS: Readonly<Record<TuningTerm, number>> = {
  /** Share of notes out of reach: nothing outweighs a note that is not there. */
  range: 100,
  /** Share of the time with an open neighbour that agrees and is root or fifth. */
  drones: -4,
  /** Mean ring of a note. */
  ring: -1.5,
  /** Shifts, crossings and hops a bar. */
  shifts: 3,
  crossings: 0.4,
  hops: 0.8,
  /** Semitones that the pegs turn altogether. */
  retuning: 0.12,
};

export interface NamedTuning {
  readonly name: string;
  readonly tuning: Tuning;
}

/** A tuning for a tune, with its figures and what each costs. */
export interface RankedTuning extends NamedTuning {
  readonly key: Key;
  readonly figures: Readonly<Record<TuningTerm, number>>;
  readonly terms: Readonly<Record<TuningTerm, number>>;
  readonly cost: number;
  readonly notesLost: number;
  readonly ceilingBpm: number | null;
}

/** A drone is consonant enough to speak for a tuning from this rank down. A guess. */
const GOOD_DRONE = 0.45;

/**
 * Figures of one tuning for a tune: notes out of reach, open drones that agree, ring, shifts, crossings, hops, and how far
 * the pegs turn from the tuning before. The cost is the sum of each figure times its weight; less is better.
 * Time as for one report.
 */
export function rankTuning(
  tune: Tune,
  { name, tuning }: NamedTuning,
  before: Tuning,
  settings: PlayerSettings,
): RankedTuning {
  const { tune: retuned } = changeTuning(tune, tuning, settings.hand, settings.instrument);
  const report = reportTune(retuned, settings);
  const { unrolled, fingers, figures: counted } = report;
  const scene = droneScene(retuned, unrolled, fingers, danceBeat(retuned));
  let [total, droned, ring, lost, hops, shifts] = [0, 0, 0, 0, 0, 0];
  for (const [i, { note, duration }] of unrolled.notes.entries()) {
    const fingering = fingers.get(note.id)!;
    const length = toNumber(duration);
    total += length;
    if (!fingering.reachable) {
      lost += 1;
      continue;
    }
    const [best] = openDrones(scene, i);
    if (best && best.rank <= GOOD_DRONE && best.role !== 'other') droned += length;
    ring += ringOf(midiOf(note.pitch), tuning, PLACES.indexOf(fingering.place));
    if (counted.moves[i]?.hop) hops += 1;
    if (counted.moves[i]?.shift) shifts += 1;
  }
  const notes = Math.max(1, unrolled.notes.length);
  const bars = Math.max(1, report.bars);
  const { adjacent, skip } = counted.arm.sums;
  const figures: Record<TuningTerm, number> = {
    range: lost / notes,
    drones: total === 0 ? 0 : droned / total,
    ring: ring / notes,
    shifts: shifts / bars,
    crossings: (adjacent + skip) / bars,
    hops: hops / bars,
    retuning: tuning.reduce((sum, pitch, i) => sum + Math.abs(midiOf(pitch) - midiOf(before[i]!)), 0),
  };
  const terms = Object.fromEntries(TUNING_TERMS.map((term) => [term, TUNING_WEIGHTS[term] * figures[term]])) as Record<
    TuningTerm,
    number
  >;
  return {
    name,
    tuning,
    key: retuned.key,
    figures,
    terms,
    cost: TUNING_TERMS.reduce((sum, term) => sum + terms[term], 0),
    notesLost: lost,
    ceilingBpm: counted.check.ceiling?.ceilingBpm ?? null,
  };
}

/** Gaps between costs smaller than this are too small to hear: the two are as good as each other. A guess. */
export const TIE = 0.15;

/** Which of some tunings, cheapest first, are as good as the best of their group: each is held against the group's first. */
export function tiedWith(ranked: readonly Pick<RankedTuning, 'cost'>[]): boolean[] {
  let best = -Infinity;
  return ranked.map(({ cost }, i) => {
    const isTied = i > 0 && cost - best < TIE;
    if (!isTied) best = cost;
    return isTied;
  });
}

/**
 * Rankings one by one, so that a worker may tell how far it is; in the tune's own key and in those of other tonics.
 * Tunings that no fiddle with the usual strings is brought into are left out.
 */
export function* rankTunings(
  tune: Tune,
  tunings: readonly NamedTuning[],
  before: Tuning,
  settings: PlayerSettings,
  tonics: readonly Pick<Key, 'letter' | 'alter'>[] = [tune.key],
): Generator<RankedTuning> {
  for (const tonic of tonics) {
    const isOwn = tonic.letter === tune.key.letter && tonic.alter === tune.key.alter;
    const set = isOwn ? tune : transposeToKey(tune, tonic);
    for (const named of tunings)
      if (retunePlan(STANDARD_TUNING, named.tuning).ok) yield rankTuning(set, named, before, settings);
  }
}

/** The best first; equal costs keep the order of the library. */
export function bestFirst(ranked: readonly RankedTuning[]): RankedTuning[] {
  return [...ranked].sort((a, b) => a.cost - b.cost);
}
