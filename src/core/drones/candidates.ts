import { type Fraction, toNumber } from '#core/base';
import { type Fingering, FREE_HAND, type Hand, type HandStop, isBanned, stopsOf, stopsOnString } from '#core/fingering';
import { type Chord, chordsOfKey, harmonyOf } from '#core/harmony';
import { alterInKey, midiOf, pitchAtStep, staffStep } from '#core/pitch';
import { PLACES, type Tune, type Unrolled } from '#core/tune';
import { intervalClass } from './intervals';
import { DEFAULT_EAR, type EarWeights, type RankedDrone, rankOf, rankTerms, roleOf, type TonalRole } from './rank';

/** What stands about each played note: the harmony in force, whether it is stressed, what comes next. */
export interface DroneScene {
  readonly tune: Tune;
  readonly unrolled: Unrolled;
  readonly fingers: ReadonlyMap<string, Fingering>;
  /** What the player keeps from the hand is not suggested. */
  readonly hand: Hand;
  /** The chord of the moment at each note: the written one, else the one found from the melody, which the backing plays. */
  readonly chords: readonly Chord[];
  readonly isStrong: readonly boolean[];
  /** The dance's beat, in whole notes. */
  readonly beat: number;
  /** Index of the next strong note; -1 where there is none. */
  readonly nextStrong: readonly number[];
}

/** Looks once along the tune. `beat`: the dance's beat in whole notes; what begins on one is strong. Time O(n). */
export function droneScene(
  tune: Tune,
  unrolled: Unrolled,
  fingers: ReadonlyMap<string, Fingering>,
  beat: Fraction,
  hand: Hand = FREE_HAND,
): DroneScene {
  const size = toNumber(beat);
  const spans = harmonyOf(tune, unrolled, beat);
  let span = 0;
  const chords: Chord[] = [];
  const isStrong: boolean[] = [];
  for (const { onset, passIndex } of unrolled.notes) {
    const at = toNumber(onset);
    while (span + 1 < spans.length && spans[span + 1]!.from <= at + 1e-9) span += 1;
    chords.push(spans[span]?.chord ?? tonicChord(tune.key));
    const since = at - toNumber(unrolled.passes[passIndex]!.firstFullBarOnset);
    const beats = since / size;
    isStrong.push(Math.abs(beats - Math.round(beats)) < 1e-6);
  }
  const nextStrong = new Array<number>(isStrong.length).fill(-1);
  let next = -1;
  for (let i = isStrong.length - 1; i >= 0; i--) {
    nextStrong[i] = next;
    if (isStrong[i]) next = i;
  }
  return { tune, unrolled, fingers, hand, chords, isStrong, beat: size, nextStrong };
}

const tonicChord = (key: Tune['key']): Chord => chordsOfKey(key)[0]!;

/** A step up or down: what a resolution moves by. */
const STEP = 2;

/**
 * Whether a sharp interval resolves: the next strong note follows by step, and stands better against the same string.
 */
export function resolvesAt({ unrolled, nextStrong }: DroneScene, index: number, drone: number): boolean {
  const next = nextStrong[index]!;
  if (next < 0) return false;
  const here = midiOf(unrolled.notes[index]!.note.pitch);
  const there = midiOf(unrolled.notes[next]!.note.pitch);
  const step = Math.abs(there - here);
  return step > 0 && step <= STEP && intervalClass(there - drone) !== 'sharp';
}

/** The open neighbours of a played note, the best first; none where the note is out of reach or a chord. */
export function openDrones(scene: DroneScene, index: number, ear: EarWeights = DEFAULT_EAR): RankedDrone[] {
  const { note } = scene.unrolled.notes[index]!;
  const fingering = scene.fingers.get(note.id)!;
  if (!fingering.reachable || fingering.stops.some((stop) => stop !== null)) return [];
  const at = PLACES.indexOf(fingering.place);
  const melody = midiOf(note.pitch);
  const found = (['lower', 'upper'] as const).flatMap((kind): RankedDrone[] => {
    const pitch = scene.tune.tuning[at + (kind === 'upper' ? 1 : -1)];
    const place = PLACES[at + (kind === 'upper' ? 1 : -1)];
    if (!pitch || !place) return [];
    const midi = midiOf(pitch);
    const own = intervalClass(melody - midi);
    const resolves = own === 'sharp' && resolvesAt(scene, index, midi);
    const role = roleOf(midi, scene.chords[index]!);
    const terms = rankTerms(melody, midi, role, resolves, ear);
    const reachRisk = fingering.finger === 0 ? 'none' : kind === 'upper' ? 'high' : 'some';
    return [
      {
        kind,
        place,
        pitch,
        semitones: Math.abs(melody - midi),
        class: own,
        resolves,
        role,
        terms,
        rank: rankOf(terms),
        reachRisk,
      },
    ];
  });
  return found.sort((a, b) => a.rank - b.rank);
}

/** A second note stopped on a neighbour string under the same hand, ranked. */
export interface StoppedDouble extends Placed {
  readonly role: TonalRole;
  readonly semitones: number;
  readonly rank: number;
  readonly terms: RankedDrone['terms'];
}

/** A note of the key on a neighbour string that the hand has beside a stop. */
interface Placed {
  readonly stop: HandStop;
  readonly pitch: Tune['tuning'][number];
  /** One finger has both. */
  readonly isBarre: boolean;
}

/**
 * Double stops with the second note stopped on the next lower string, or above the melody on the next higher one: notes of
 * the key that another finger, or the same one lying across, has in the hand's position. The best first.
 */
export function stoppedDoubles(scene: DroneScene, index: number, ear: EarWeights = DEFAULT_EAR): StoppedDouble[] {
  const { note } = scene.unrolled.notes[index]!;
  const fingering = scene.fingers.get(note.id)!;
  if (!fingering.reachable || fingering.stops.some((stop) => stop !== null)) return [];
  const melody = midiOf(note.pitch);
  const found = placedBeside(scene, fingering, melody).map(({ stop, pitch, isBarre }): StoppedDouble => {
    const midi = midiOf(pitch);
    const own = intervalClass(melody - midi);
    const resolves = own === 'sharp' && resolvesAt(scene, index, midi);
    const role = roleOf(midi, scene.chords[index]!);
    const terms = rankTerms(melody, midi, role, resolves, ear);
    return { stop, pitch, role, semitones: Math.abs(melody - midi), rank: rankOf(terms), terms, isBarre };
  });
  return found.sort((a, b) => a.rank - b.rank);
}

const placedBefore = new WeakMap<DroneScene, Map<string, readonly Placed[]>>();

/** What lies under the hand on both neighbour strings; looked up once for each way that a note is stopped. */
function placedBeside(scene: DroneScene, fingering: Fingering, melody: number): readonly Placed[] {
  const known = placedBefore.get(scene) ?? new Map<string, readonly Placed[]>();
  placedBefore.set(scene, known);
  const name = `${fingering.place}${fingering.finger}@${fingering.position} ${melody}`;
  const before = known.get(name);
  if (before) return before;
  const found = ([-1, 1] as const).flatMap((side) => findBeside(scene.tune, scene.hand, fingering, melody, side));
  known.set(name, found);
  return found;
}

function findBeside({ tuning, key }: Tune, hand: Hand, fingering: Fingering, melody: number, side: -1 | 1): Placed[] {
  const [top] = stopsOf(fingering);
  const beside = top && PLACES[PLACES.indexOf(top.place) + side];
  if (!top || !beside) return [];
  const open = tuning[PLACES.indexOf(beside)]!;
  const found: Placed[] = [];
  for (let steps = 1; steps <= 8; steps++) {
    const natural = pitchAtStep(staffStep(open) + steps);
    const pitch = { ...natural, alter: alterInKey(key, natural.letter) };
    if ((midiOf(pitch) - melody) * side <= 0) continue;
    const stop = stopsOnString(pitch, beside, tuning).find(
      (candidate) => candidate.position === fingering.position && !candidate.substitute && !candidate.extended,
    );
    if (stop && fitsBeside(top, stop) && !isBanned(hand, stop))
      found.push({ stop, pitch, isBarre: top.finger > 0 && stop.finger === top.finger });
  }
  return found;
}

/** One finger in one place, and higher fingers no nearer to the nut. */
function fitsBeside(top: { readonly finger: number; readonly semitones: number }, stop: HandStop): boolean {
  if (top.finger === 0) return true;
  if (top.finger === stop.finger) return top.semitones === stop.semitones;
  return top.finger > stop.finger ? top.semitones >= stop.semitones : top.semitones <= stop.semitones;
}
