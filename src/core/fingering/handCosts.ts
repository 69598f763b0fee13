import type { Millimetres } from '#core/base';
import { PLACES } from '#core/tune';
import { type Hand, stringsDown } from './hand';
import type { HandGround } from './handGround';
import { wholeDistance } from './nut';
import { handHome, type HandStop } from './positions';

/**
 * What the hand is charged, in millimetres of movement or its worth: guesses, to be weighed against each other and not
 * measured on any player. A shift costs its own way along the string, a stretch what it goes beyond the hand at rest.
 */
export const HAND_COSTS = {
  /** The bow, or the finger, goes to a neighbour string. */
  crossing: 4,
  /** Each string skipped. */
  skip: 24,
  /** The hand leaves its place at all; its way along the string is added. */
  shift: 40,
  /** Each millimetre that two stopped notes lie further apart than these fingers at rest. */
  stretchPerMm: 1,
  /** More for each string below E. */
  stretchPerString: 0.15,
  /** One finger leaves a string for another. */
  hop: 30,
  /** One finger lies across two strings. */
  barre: 14,
  fourth: 10,
  extendedFourth: 20,
  substitute: 16,
  /** A pitch is stopped that an open string has and that would ring open. */
  ringLost: 6,
  /** A long note open where vibrato is wanted. */
  longOpen: 30,
  /** One finger slides along a string between two notes; its way is added. A semitone is rolled: its way alone. */
  slide: 25,
  /** Each position above the first; half position, which is no place to be. */
  position: 5,
  halfPosition: 40,
  /** What no hand should have to do: kept only where nothing else is left, and then named. */
  forbidden: 100_000,
} as const;

/** A shift or a hop over a rest, or from an open string, is done at leisure: this share of its cost. */
const AT_LEISURE = 0.5;

/** How two notes follow each other: a slur hides nothing, a rest gives time. */
export type Following = 'turn' | 'slur' | 'rest';

/** In a slur a shift is heard and a crossing sounds: this much dearer. */
const IN_SLUR = 1.5;

/** Stops of one note or chord under one hand, the melody first. */
export type HandChord = readonly HandStop[];

/** Cost of one note or chord by itself, in millimetres. `isLong`: it lasts long enough for vibrato. */
export function stopCost(chord: HandChord, hand: Hand, isLong: boolean, ground: HandGround): number {
  const { position } = chord[0]!;
  let cost = position < 1 ? HAND_COSTS.halfPosition : HAND_COSTS.position * (position - 1);
  for (const stop of chord) {
    if (stop.finger === 4) cost += HAND_COSTS.fourth;
    if (stop.extended) cost += HAND_COSTS.extendedFourth;
    if (stop.substitute) cost += HAND_COSTS.substitute;
    if (stop.finger > 0 && ground.ringsOpen(stop)) cost += HAND_COSTS.ringLost;
  }
  if (isLong && hand.vibrato && chord[0]!.finger === 0) cost += HAND_COSTS.longOpen;
  for (let i = 0; i + 1 < chord.length; i++)
    for (let j = i + 1; j < chord.length; j++) cost += togetherCost(chord[i]!, chord[j]!, hand, ground);
  return cost;
}

/** Two notes at once: a barre where one finger has both, else what the span asks for. */
function togetherCost(a: HandStop, b: HandStop, hand: Hand, ground: HandGround): number {
  if (a.finger === 0 || b.finger === 0) return 0;
  if (a.finger === b.finger) return a.semitones === b.semitones ? HAND_COSTS.barre : HAND_COSTS.forbidden;
  const crossed = a.finger > b.finger !== a.semitones >= b.semitones && a.semitones !== b.semitones;
  return (crossed ? HAND_COSTS.forbidden : 0) + stretchCost(a, b, hand, ground);
}

/** Cost of going from one note to the next, in millimetres. */
export function moveCost(from: HandStop, to: HandStop, hand: Hand, following: Following, ground: HandGround): number {
  const inSlur = following === 'slur' ? IN_SLUR : 1;
  const leisure = following === 'rest' || from.finger === 0 ? AT_LEISURE : 1;
  const apart = Math.abs(PLACES.indexOf(from.place) - PLACES.indexOf(to.place));
  const { stringLengthMm } = ground;
  let cost = 0;
  if (apart > 0) cost += inSlur * (HAND_COSTS.crossing + HAND_COSTS.skip * (apart - 1));
  if (from.position !== to.position) {
    const way = Math.abs(shiftWay(from.position, to.position, stringLengthMm));
    return cost + inSlur * leisure * (HAND_COSTS.shift + way);
  }
  if (from.finger === 0 || to.finger === 0) return cost;
  if (from.finger === to.finger) {
    if (apart > 0) return cost + handOver(from, to, apart) * (following === 'rest' ? AT_LEISURE : 1);
    const apartSemitones = Math.abs(to.semitones - from.semitones);
    if (apartSemitones === 0) return cost;
    const way = Math.abs(wholeDistance(to.semitones, stringLengthMm) - wholeDistance(from.semitones, stringLengthMm));
    return cost + way + (apartSemitones > 1 ? HAND_COSTS.slide : 0);
  }
  return cost + stretchCost(from, to, hand, ground);
}

/** The same finger on another string: across both if they are neighbours and it lies at one place, else it hops. */
function handOver(from: HandStop, to: HandStop, apart: number): number {
  return apart === 1 && from.semitones === to.semitones ? HAND_COSTS.barre : HAND_COSTS.hop;
}

/** Way of the hand along the string between two positions; up is positive. */
export function shiftWay(
  from: HandStop['position'],
  to: HandStop['position'],
  stringLengthMm: Millimetres,
): Millimetres {
  return wholeDistance(handHome(to), stringLengthMm) - wholeDistance(handHome(from), stringLengthMm);
}

/** Distance along the string between two stopped notes. */
export function spanMm(a: HandStop, b: HandStop, stringLengthMm: Millimetres): Millimetres {
  return Math.abs(wholeDistance(a.semitones, stringLengthMm) - wholeDistance(b.semitones, stringLengthMm));
}

/** What a span goes beyond the same fingers at rest on the key's own notes, dearer on lower strings; forbidden beyond the player's reach. */
function stretchCost(a: HandStop, b: HandStop, hand: Hand, ground: HandGround): number {
  const { stringLengthMm, home } = ground;
  const span = spanMm(a, b, stringLengthMm);
  if (hand.largestSpanMm !== null && span > hand.largestSpanMm) return HAND_COSTS.forbidden;
  const rest = Math.abs(wholeDistance(home(a), stringLengthMm) - wholeDistance(home(b), stringLengthMm));
  const lower = Math.max(stringsDown(a.place), stringsDown(b.place));
  return HAND_COSTS.stretchPerMm * (1 + HAND_COSTS.stretchPerString * lower) * Math.max(0, span - rest);
}
