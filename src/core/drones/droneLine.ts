import { type Fraction, type Seconds, toNumber } from '#core/base';
import { pairPlane, type Plane, planeOf } from '#core/crossing';
import { PHRASE_BARS, PLACES, type Unrolled } from '#core/tune';
import { type DroneScene, openDrones, type StoppedDouble, stoppedDoubles } from './candidates';
import { DEFAULT_EAR, type EarWeights, type RankedDrone } from './rank';

/**
 * Where drones are wished for. One pair: the hand holds a pair of open strings while the melody changes strings on it, so
 * nothing is stopped and no note is on a single string.
 */
export const DRONE_WISHES = ['none', 'stressed', 'phrase-ends', 'throughout', 'one-pair'] as const;
export type DroneWish = (typeof DRONE_WISHES)[number];

/** What a wished drone earns, against the terms of its rank: a sharp, rough one costs more than that. A guess. */
const EARNS = 0.7;
/** What a drone that was not asked for costs. A guess. */
const UNASKED = 0.2;
/** Turning of the bow between the planes of two notes, for each neighbour angle. A guess. */
const PLANE_TURN = 0.12;
/** A partner that is stopped costs more than an open one, laid across with the melody's finger more still, and needs time to be set. Guesses. */
const STOPPED_PARTNER = 0.3;
const BARRE = 0.4;
const SHORTEST_PARTNER: Seconds = 0.25;
/** Where one pair is wished, leaving it: as much as some harsh notes. A guess. */
const PAIR_LEFT = 2;
/** Melody fingers near a sounding neighbour. Guesses. */
const RISK: Readonly<Record<RankedDrone['reachRisk'], number>> = { none: 0, some: 0.02, high: 0.08 };

/** Asks for stopped partners; `durations[i]` is how long played note i lasts at the tempo. */
export interface StoppedPartners {
  readonly durations: readonly Seconds[];
}

/** What sounds beside one note. */
export type DroneChoice =
  | { readonly kind: 'none' }
  | { readonly kind: 'lower' | 'upper'; readonly drone: RankedDrone }
  | { readonly kind: 'stopped'; readonly double: StoppedDouble };

export interface DroneLine {
  /** `choices[i]` belongs to note `from + i`. */
  readonly choices: readonly DroneChoice[];
  readonly cost: number;
}

export interface DroneStep {
  readonly choice: DroneChoice;
  readonly plane: Plane | null;
  /** Where the plane lies, in strings from G. */
  readonly rank: number;
  readonly cost: number;
}

export interface DroneOptions {
  readonly ear?: EarWeights;
  /** What stopped partners need; null: open strings only. */
  readonly partners?: StoppedPartners | null;
}

/**
 * The cheapest drones for a run of played notes, `from` up to, not including, `to`: the sum of each choice's rank, reach
 * risk and wish, and of the turning between planes. Open strings, and where they are asked for
 * stopped partners too, dearer and on no short note. Exact, by dynamic programming over the choices of a note. Time O(n·c²)
 * for c choices, three without stopped partners.
 */
export function droneLine(
  scene: DroneScene,
  { from, to }: { readonly from: number; readonly to: number },
  wish: DroneWish,
  { ear = DEFAULT_EAR, partners = null }: DroneOptions = {},
): DroneLine {
  const steps: (readonly DroneStep[])[] = [];
  // What is played again in the same surroundings has the same choices.
  const known = new Map<string, readonly DroneStep[]>();
  for (let i = from; i < to; i++) {
    const name = surroundings(scene, i, wish);
    const found = known.get(name) ?? droneSteps(scene, i, wish, ear, partners);
    known.set(name, found);
    steps.push(found);
  }
  const costs: number[][] = [];
  const back: number[][] = [];
  for (const [i, options] of steps.entries()) {
    costs.push([]);
    back.push([]);
    for (const option of options) {
      let [best, least] = [0, i === 0 ? 0 : Infinity];
      for (const [s, before] of (steps[i - 1] ?? []).entries()) {
        const cost = costs[i - 1]![s]! + joinCost(before, option, wish);
        if (cost < least - 1e-12) [best, least] = [s, cost];
      }
      costs[i]!.push(least + option.cost);
      back[i]!.push(best);
    }
  }
  if (steps.length === 0) return { choices: [], cost: 0 };
  const last = costs[costs.length - 1]!;
  let at = last.indexOf(Math.min(...last));
  const cost = last[at]!;
  const choices: DroneChoice[] = [];
  for (let i = steps.length - 1; i >= 0; i--) {
    choices[i] = steps[i]![at]!.choice;
    at = back[i]![at]!;
  }
  return { choices, cost };
}

/** All that the choices at a note hang on: the note, its harmony, whether it is wished for, and what comes next. */
function surroundings(scene: DroneScene, index: number, wish: DroneWish): string {
  const { unrolled, chords, nextStrong } = scene;
  const next = nextStrong[index]!;
  const { root, third, fifth } = chords[index]!;
  const chord = `${root} ${third} ${fifth}`;
  const isAsked = wish !== 'none' && isWished(scene, index, wish);
  return `${unrolled.notes[index]!.note.id} ${next < 0 ? '' : unrolled.notes[next]!.note.id} ${chord} ${isAsked}`;
}

/** The choices at one note, none first, each with what it costs by itself. */
export function droneSteps(
  scene: DroneScene,
  index: number,
  wish: DroneWish,
  ear: EarWeights,
  partners: StoppedPartners | null = null,
): DroneStep[] {
  const { note } = scene.unrolled.notes[index]!;
  const { place, reachable, stops } = scene.fingers.get(note.id)!;
  const [second] = stops;
  const hasStops = stops.some((stop) => stop !== null);
  const step = (choice: DroneChoice, plane: Plane | null, cost: number): DroneStep => ({
    choice,
    plane,
    rank: plane ? planeRank(plane) : 0,
    cost,
  });
  const ownPlane = second ? pairPlane(place, second.place) : planeOf(place, false);
  const plain = step({ kind: 'none' }, reachable ? ownPlane : null, 0);
  if (wish === 'none' || !reachable || hasStops) return [plain];
  const earns = isWished(scene, index, wish) ? -EARNS : UNASKED;
  const open = openDrones(scene, index, ear).map((drone) =>
    step({ kind: drone.kind, drone }, pairPlane(place, drone.place), drone.rank + RISK[drone.reachRisk] + earns),
  );
  if (wish === 'one-pair') return open.length > 0 ? open : [plain];
  const doubles =
    partners && partners.durations[index]! >= SHORTEST_PARTNER
      ? stoppedDoubles(scene, index, ear).map((double) =>
          step(
            { kind: 'stopped', double },
            pairPlane(place, double.stop.place),
            double.rank + STOPPED_PARTNER + (double.isBarre ? BARRE : 0) + earns,
          ),
        )
      : [];
  return [plain, ...open, ...doubles];
}

function isWished({ unrolled, isStrong, beat }: DroneScene, index: number, wish: DroneWish): boolean {
  if (wish === 'one-pair' || wish === 'throughout') return true;
  if (wish === 'stressed') return isStrong[index]!;
  return isPhraseEnd(unrolled, index, beat);
}

/**
 * Whether a note ends a phrase: the last note of a beat or more in the phrase's last bar, before what leads in to the next
 * phrase; where the bar has none so long, its last note.
 */
export function isPhraseEnd({ notes }: Unrolled, index: number, beat: number): boolean {
  const { bar, passIndex, duration } = notes[index]!;
  if (bar === 0 || bar % PHRASE_BARS !== 0) return false;
  const isInBar = (i: number) => notes[i]?.passIndex === passIndex && notes[i]?.bar === bar;
  const isLong = (i: number) => toNumber(notes[i]!.duration) >= beat - 1e-9;
  if (toNumber(duration) >= beat - 1e-9) {
    for (let i = index + 1; isInBar(i); i++) if (isLong(i)) return false;
    return true;
  }
  if (isInBar(index + 1)) return false;
  for (let i = index - 1; i >= 0 && isInBar(i); i--) if (isLong(i)) return false;
  return true;
}

/** Where a plane lies among the strings: neighbour planes are half a neighbour angle apart, whatever the bridge. */
function planeRank(plane: Plane): number {
  const first = PLACES.indexOf(plane[0]);
  return plane.length === 2 ? first + 0.5 : first;
}

/** Cost of going from one choice to the next. */
export function joinCost(before: DroneStep, next: DroneStep, wish: DroneWish): number {
  if (!before.plane || !next.plane) return 0;
  const left = wish === 'one-pair' && before.plane.length === 2 && next.plane !== before.plane ? PAIR_LEFT : 0;
  return left + PLANE_TURN * Math.abs(next.rank - before.rank);
}

/** How long a line takes at a glance: notes with a drone, and their share of its time. */
export function droneShare(choices: readonly DroneChoice[], durations: readonly Fraction[]): number {
  let [sounding, total] = [0, 0];
  for (const [i, { kind }] of choices.entries()) {
    const length = toNumber(durations[i]!);
    total += length;
    if (kind !== 'none') sounding += length;
  }
  return total === 0 ? 0 : sounding / total;
}
