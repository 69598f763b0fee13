import type { Centimetres, CentimetresPerSecond, Seconds } from '#core/base';
import type { BowedNote } from '#core/bowing';
import type { Instrument } from '#core/instrument';
import type { DanceType } from '#core/tune';
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
 * Nothing is fitted to the hair here: what leaves it is reported as found, and is no finding, since nobody draws so.
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
  let position = 0;
  let [lastDuration, lastLength] = [-1, 0];
  for (let first = 0; first < bowed.length;) {
    let end = first + 1;
    while (end < bowed.length && bowed[end]!.inStroke > 1) end += 1;
    let duration = 0;
    for (let i = first; i < end; i++) duration += durations[i]!;
    // Most strokes of a dance last as long as the one before.
    if (duration !== lastDuration) {
      lastDuration = duration;
      lastLength = nominalLength(duration, speed);
    }
    const length = lastLength * strokeRatio(reach, durations, first, end);
    const { link, bow } = bowed[first]!;
    const sign = bow === 'down' ? 1 : -1;
    if (link === 'start' || link === 'retake') position = instrument.sweetSpotCm - (sign * length) / 2;
    let weighed = duration;
    if (reach) {
      weighed = 0;
      for (let i = first; i < end; i++) weighed += durations[i]! * reach.shape[i]!;
    }
    const strokeSpeed = weighed > 0 ? length / weighed : 0;
    for (let i = first; i < end; i++) {
      const noteSpeed = reach ? strokeSpeed * reach.shape[i]! : strokeSpeed;
      const next = position + sign * noteSpeed * durations[i]!;
      travel.push({ bowStartCm: position, bowEndCm: next, speed: noteSpeed });
      position = next;
    }
    first = end;
  }
  return travel;
}
