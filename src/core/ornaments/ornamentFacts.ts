import type { Centimetres, Fraction, Milliseconds, Seconds } from '#core/base';
import { toNumber } from '#core/base';
import type { BowedNote } from '#core/bowing';
import type { DroneScene } from '#core/drones';
import { type Fingering, handHome, isBanned } from '#core/fingering';
import type { Limits } from '#core/tempo';
import type { UnrolledNote } from '#core/tune';
import { closingSwell, swellLast } from './closingSwell';
import type { Ornament } from './kinds';

/** What an ornament of a played note asks for and does. */
export interface OrnamentFacts {
  readonly ornament: Ornament;
  /** What stands in its way; empty: it fits. */
  readonly obstacles: readonly Obstacle[];
  /** Time that it has and needs; null where it needs none of its own. */
  readonly time: { readonly availableMs: Milliseconds; readonly neededMs: Milliseconds } | null;
  /** The finger that does it; null where none does. */
  readonly finger: number | null;
  /** Hair that each of its strokes takes; they go to and fro, so that is also how far it reaches. */
  readonly hairCm: Centimetres | null;
  /** Strokes that the note has with it, against 1 without; an even difference keeps the count of strokes. */
  readonly strokesAdded: number;
  /** A touch near this share of the sounding string rings as a harmonic. */
  readonly harmonic: string | null;
  /** How high the bow leaves the string, for a staccato that is lifted. */
  readonly liftCm: Centimetres | null;
  readonly hair: 'flat' | 'tilted' | null;
}

/** Why an ornament does not fit a note; what else may be done is said in words elsewhere. */
export type Obstacle =
  | 'open-string'
  | 'no-finger-above'
  | 'too-short'
  | 'no-room'
  | 'not-up-bow'
  | 'neighbour-does-not-fit'
  | 'not-at-phrase-end'
  | 'not-before-longer'
  | 'not-into-strong'
  | 'in-slur'
  | 'kept-from-hand';

/** Everything about the played tune that ornaments hang on. */
export interface OrnamentScene {
  readonly drones: DroneScene;
  readonly bowed: readonly BowedNote[];
  readonly durations: readonly Seconds[];
  readonly limits: Limits;
  /** Seconds of two running notes. */
  readonly tripletSeconds: Seconds;
}

/** Speed of the bow in a bowed triplet. A guess: 60 ms at it are 1.5 cm. */
const TRIPLET_SPEED = 25;
/** A touch longer than this near a node rings. A guess. */
const RINGING_TOUCH_MS = 30;
/** Least length of a note that can be given vibrato. A guess. */
const VIBRATO_MS = 350;
/** Least length of a note that can fade: time to slow down, lift and move outward together. A guess. */
const FADE_MS = 400;
/** Dotted quarter, from which a roll is long. */
const LONG_ROLL: Fraction = { n: 3, d: 8 };
/** How near a node counts, as a share of the sounding length. A guess. */
const NODE_WIDTH = 0.012;
const GRAVITY_CM = 981;
/** A bow lifted for longer than this is no staccato of a dance any more. */
const LIFT_SECONDS = 0.12;

/** What one ornament would be on one played note. Time O(1). */
export function ornamentFacts(scene: OrnamentScene, index: number, ornament: Ornament): OrnamentFacts {
  const played = scene.drones.unrolled.notes[index]!;
  const fingering = scene.drones.fingers.get(played.note.id)!;
  const availableMs = 1000 * scene.durations[index]!;
  const timed = timeOf(scene, index, ornament, played);
  const wanted = fingerOf(ornament, fingering);
  const isKept = wanted !== null && isBanned(scene.drones.hand, { place: fingering.place, finger: wanted });
  // A finger that the player keeps from the hand is not suggested.
  const finger = isKept ? null : wanted;
  const obstacles: Obstacle[] = [...obstaclesOf(scene, index, ornament, fingering)];
  if (isKept) obstacles.push('kept-from-hand');
  if (timed && timed.availableMs < timed.neededMs) obstacles.push('too-short');
  const lift = ornament === 'staccato' ? Math.min(LIFT_SECONDS, availableMs / 2000) : null;
  return {
    ornament,
    obstacles,
    time: timed,
    finger,
    hairCm: ornament === 'bowed-triplet' ? (TRIPLET_SPEED * timed!.availableMs) / 1000 : null,
    strokesAdded: ornament === 'bowed-triplet' ? tripletStrokes(scene, index) : 0,
    harmonic:
      ornament === 'flick' && finger !== null ? harmonicAt(fingering, finger, scene.limits.flickMs.value) : null,
    // A bow in the air for t rises and falls t/2 each: g·(t/2)²/2.
    liftCm: lift === null ? null : (GRAVITY_CM * (lift / 2) ** 2) / 2,
    hair: lift === null ? null : availableMs < 2000 * LIFT_SECONDS ? 'flat' : 'tilted',
  };
}

function timeOf(
  { limits, durations, tripletSeconds }: OrnamentScene,
  index: number,
  ornament: Ornament,
  { duration }: UnrolledNote,
): OrnamentFacts['time'] {
  const availableMs = 1000 * durations[index]!;
  const isLong = toNumber(duration) >= toNumber(LONG_ROLL);
  switch (ornament) {
    case 'bowed-triplet':
      return {
        availableMs: (1000 * Math.min(durations[index]!, tripletSeconds)) / 3,
        neededMs: limits.tripletStrokeMs.value,
      };
    case 'cut':
      return { availableMs, neededMs: limits.cutMs.value };
    case 'flick':
      return { availableMs, neededMs: limits.flickMs.value };
    case 'roll':
      return { availableMs, neededMs: isLong ? limits.longRollMs.value : limits.shortRollMs.value };
    case 'pulse':
      return { availableMs, neededMs: limits.pulseMs.value };
    case 'vibrato':
    case 'vibrato-growing':
      return { availableMs, neededMs: VIBRATO_MS };
    case 'fade':
      return { availableMs, neededMs: FADE_MS };
    default:
      return null;
  }
}

/**
 * The finger that does it. A cut is the next finger above; a flick the third, or the fourth where the third stops the note,
 * and none above the fourth: farther from the stopping finger is stronger.
 */
function fingerOf(ornament: Ornament, { finger }: Fingering): number | null {
  if (finger === null) return null;
  switch (ornament) {
    case 'cut':
    case 'roll':
      return finger < 4 ? finger + 1 : null;
    case 'flick':
      if (finger === 4) return null;
      return finger === 3 ? 4 : 3;
    case 'slide':
    case 'pressed-in':
    case 'vibrato':
    case 'vibrato-growing':
      return finger > 0 ? finger : null;
    default:
      return null;
  }
}

function* obstaclesOf(
  scene: OrnamentScene,
  index: number,
  ornament: Ornament,
  { finger, place, semitones }: Fingering,
): Generator<Obstacle> {
  const { unrolled, isStrong, nextStrong } = scene.drones;
  const next = unrolled.notes[index + 1];
  switch (ornament) {
    case 'roll':
      // Nothing lies below an open string to tap with.
      if (finger === 0) yield 'open-string';
      else if (finger === 4) yield 'no-finger-above';
      return;
    case 'bowed-triplet':
      // Three strokes of its own: a slur must be split for it.
      if (tripletStrokes(scene, index) > TRIPLET_ADDS) yield 'in-slur';
      return;
    case 'cut':
    case 'flick':
      if (finger === 4) yield 'no-finger-above';
      return;
    case 'slide':
      if (finger === 0) yield 'open-string';
      if (!hasRoomToSlide(scene, index, { place, semitones })) yield 'no-room';
      return;
    case 'pressed-in':
    case 'vibrato':
    case 'vibrato-growing':
      if (finger === 0) yield 'open-string';
      return;
    case 'snap':
      if (!next || toNumber(next.duration) <= toNumber(unrolled.notes[index]!.duration)) yield 'not-before-longer';
      return;
    case 'passing-triplet':
    case 'brushed-run':
      if (nextStrong[index] !== index + 1 || !isStrong[index + 1]) yield 'not-into-strong';
      return;
    case 'closing-swell':
      yield* swellObstacles(scene, index);
      return;
    default:
      return;
  }
}

/** A slide from a semitone away on the same string has no room to be heard. */
function hasRoomToSlide(
  { drones: { unrolled, fingers } }: OrnamentScene,
  index: number,
  { place, semitones }: Pick<Fingering, 'place' | 'semitones'>,
): boolean {
  const before = unrolled.notes[index - 1];
  const from = before && fingers.get(before.note.id);
  return !from?.reachable || from.place !== place || Math.abs(from.semitones - semitones) !== 1;
}

function* swellObstacles({ bowed, drones }: OrnamentScene, index: number): Generator<Obstacle> {
  if (bowed[index]?.bow !== 'up') yield 'not-up-bow';
  if (swellLast(drones, index) === null) yield 'not-at-phrase-end';
  else if (!closingSwell(drones, index)) yield 'neighbour-does-not-fit';
}

/** A bowed triplet is three strokes for one. */
const TRIPLET_ADDS = 2;

/**
 * Strokes that a bowed triplet adds: its three for one, and inside a slur one more for what is played before and after it
 * in the same stroke.
 */
function tripletStrokes({ bowed }: OrnamentScene, index: number): number {
  const here = bowed[index]!;
  const hasBefore = here.inStroke > 1;
  const hasAfter = (bowed[index + 1]?.inStroke ?? 1) > 1;
  return TRIPLET_ADDS + Number(hasBefore) + Number(hasAfter);
}

/** Nodes of the sounding string by their share of it, from the bridge or the stopping finger alike. */
const NODES: readonly (readonly [number, string])[] = [
  [1 / 2, '1/2'],
  [1 / 3, '1/3'],
  [2 / 3, '1/3'],
  [1 / 4, '1/4'],
  [3 / 4, '1/4'],
  [1 / 5, '1/5'],
  [2 / 5, '1/5'],
  [3 / 5, '1/5'],
  [4 / 5, '1/5'],
];

/**
 * The node that a touching finger at home is near: it stands at 2^(−(m − n)/12) of the sounding length from the bridge, n
 * and m semitones of the stopped note and of the finger's home.
 */
function harmonicAt({ semitones, position }: Fingering, finger: number, touchMs: Milliseconds): string | null {
  if (touchMs <= RINGING_TOUCH_MS || position === null) return null;
  const share = 2 ** (-(handHome(position, finger) - semitones) / 12);
  return NODES.find(([node]) => Math.abs(node - share) < NODE_WIDTH)?.[1] ?? null;
}
