import type { Centimetres, CentimetresPerSecond, Seconds } from '#core/base';
import type { BowedNote } from '#core/bowing';
import type { Instrument } from '#core/instrument';
import type { DanceType, Link } from '#core/tune';
import { type Reach, strokeRatio } from './reach';

/** A long stroke slows the bow: lengths saturate toward this, a guess. */
export const SATURATION_CM: Centimetres = 45;
/** Even bow speed by kind of tune, guesses. */
export const DANCE_SPEED: CentimetresPerSecond = 45;
export const AIR_SPEED: CentimetresPerSecond = 16;

export function bowSpeed(danceType: DanceType | null): CentimetresPerSecond {
  return danceType === 'air' ? AIR_SPEED : DANCE_SPEED;
}

/** Nominal length of a stroke of duration d at speed v: w·(1 - exp(-v·d/w)) with w = 45 cm. */
export function nominalLength(duration: Seconds, speed: CentimetresPerSecond): Centimetres {
  return SATURATION_CM * (1 - Math.exp((-speed * duration) / SATURATION_CM));
}

/** Where on the hair a note begins and ends, from the frog; raw figures, which may lie outside the hair. */
export interface NoteTravel {
  readonly bowStartCm: Centimetres;
  readonly bowEndCm: Centimetres;
  readonly speed: CentimetresPerSecond;
}

/**
 * Raw travel at nominal lengths: the first stroke, and each one after a retake, is centred on the sweet spot; every
 * other begins where the one before ended. A down-bow moves toward the tip. Notes share their stroke by time, pulsed and
 * accented ones by more.
 * Nothing is fitted to the hair here: what leaves it is reported as found.
 * @param durations sounding seconds of each note
 * @param reach by how much notes and strokes are longer than nominal; null: not at all
 * Time O(n).
 */
export function rawTravel(
  bowed: readonly BowedNote[],
  durations: readonly Seconds[],
  speed: CentimetresPerSecond,
  instrument: Instrument,
  reach: Reach | null = null,
): NoteTravel[] {
  const travel: NoteTravel[] = [];
  visitTravel(bowed, durations, speed, instrument, reach, (bowStartCm, bowEndCm, strokeSpeed) =>
    travel.push({ bowStartCm, bowEndCm, speed: strokeSpeed }),
  );
  return travel;
}

/** One link changed wherever its note is played. */
export interface LinkChange {
  /** Indices of the played notes, rising. */
  readonly indices: readonly number[];
  readonly link: Link;
}

/**
 * How many notes of the raw travel leave the hair, as bowed or with a link changed, which is not bowed anew.
 * Above `most` it is no longer counted on. Time O(n).
 */
export function notesOffHair(
  bowed: readonly BowedNote[],
  durations: readonly Seconds[],
  speed: CentimetresPerSecond,
  instrument: Instrument,
  reach: Reach | null = null,
  change: LinkChange | null = null,
  most = Infinity,
): number {
  let count = 0;
  const visit = (from: Centimetres, to: Centimetres) => {
    if (isOffHair(from, to, instrument)) count += 1;
    return count <= most;
  };
  visitTravel(bowed, durations, speed, instrument, reach, visit, change);
  return count;
}

/** What travel asks of a bowing: where strokes begin, where the bow is set anew, 1 down and -1 up. */
interface Flow {
  readonly begins: Uint8Array;
  readonly isSet: Uint8Array;
  readonly sign: Int8Array;
}

function flowOf(bowed: readonly BowedNote[], change: LinkChange | null): Flow {
  const count = bowed.length;
  const flow = { begins: new Uint8Array(count), isSet: new Uint8Array(count), sign: new Int8Array(count) };
  let flip = 1;
  let next = 0;
  for (let i = 0; i < count; i++) {
    const { bow } = bowed[i]!;
    let { link } = bowed[i]!;
    if (change && change.indices[next] === i) {
      next += 1;
      // The first note played only starts.
      if (i > 0) {
        // Every note after a turn that is made or left out goes the other way.
        if ((link === 'change') !== (change.link === 'change')) flip = -flip;
        link = change.link;
      }
    }
    flow.begins[i] = link === 'slur' || link === 'hook' ? 0 : 1;
    flow.isSet[i] = link === 'start' || link === 'retake' ? 1 : 0;
    flow.sign[i] = bow === 'down' ? flip : -flip;
  }
  return flow;
}

function visitTravel(
  bowed: readonly BowedNote[],
  durations: readonly Seconds[],
  speed: CentimetresPerSecond,
  instrument: Instrument,
  reach: Reach | null,
  visit: (from: Centimetres, to: Centimetres, strokeSpeed: CentimetresPerSecond) => unknown,
  change: LinkChange | null = null,
): void {
  const { begins, isSet, sign: signs } = flowOf(bowed, change);
  let position = 0;
  let [lastDuration, lastLength] = [-1, 0];
  for (let first = 0; first < bowed.length;) {
    let end = first + 1;
    while (end < bowed.length && !begins[end]) end += 1;
    let duration = 0;
    for (let i = first; i < end; i++) duration += durations[i]!;
    // Most strokes of a dance last as long as the one before.
    if (duration !== lastDuration) {
      lastDuration = duration;
      lastLength = nominalLength(duration, speed);
    }
    const length = lastLength * strokeRatio(reach, durations, first, end);
    const sign = signs[first]!;
    if (isSet[first]) position = instrument.sweetSpotCm - (sign * length) / 2;
    let weighed = duration;
    if (reach) {
      weighed = 0;
      for (let i = first; i < end; i++) weighed += durations[i]! * reach.shape[i]!;
    }
    const strokeSpeed = weighed > 0 ? length / weighed : 0;
    for (let i = first; i < end; i++) {
      const noteSpeed = reach ? strokeSpeed * reach.shape[i]! : strokeSpeed;
      const next = position + sign * noteSpeed * durations[i]!;
      if (visit(position, next, noteSpeed) === false) return;
      position = next;
    }
    first = end;
  }
}

/** Whether a note's share of the stroke leaves the hair. */
export function runsOut({ bowStartCm, bowEndCm }: NoteTravel, instrument: Instrument): boolean {
  return isOffHair(bowStartCm, bowEndCm, instrument);
}

/** Rounding alone is not leaving the hair. */
const TOLERANCE_CM: Centimetres = 1e-9;

function isOffHair(from: Centimetres, to: Centimetres, { hairCm }: Instrument): boolean {
  return Math.min(from, to) < -TOLERANCE_CM || Math.max(from, to) > hairCm + TOLERANCE_CM;
}
