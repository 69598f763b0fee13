import type { BeatsPerMinute, Centimetres, CentimetresPerSecond, Seconds } from '#core/base';
import type { Schools } from '#core/schools';
import { nominalLength } from './travel';

/** A rung of the way from practice to dance tempo. */
export interface ScheduledBow {
  readonly bpm: BeatsPerMinute;
  /** Hair of a stroke, and the speed at which it is drawn. */
  readonly cm: Centimetres;
  readonly speed: CentimetresPerSecond;
}

/** Practice begins at this share of the dance tempo, a guess. */
export const PRACTICE_SHARE = 0.5;
/** Of the hair, in a whole bow drawn without touching frog or tip, a guess. */
export const WHOLE_BOW_SHARE = 0.9;

/** Quickest bow that is still drawn calmly, a guess: what a whole bow would need more for is drawn shorter. */
export const CALM_SPEED: CentimetresPerSecond = 80;

/** A stroke as it lasts at dance tempo, how fast its bow is drawn there, and the hair there is. */
export interface ScheduledStroke {
  readonly seconds: Seconds;
  readonly danceBpm: BeatsPerMinute;
  readonly speed: CentimetresPerSecond;
  readonly hairCm: Centimetres;
}

/**
 * Bow amount from practice to dance tempo, for a stroke that lasts `seconds` at dance tempo.
 *
 * At dance tempo both schools draw its nominal length. Short strokes from the first day keep that length at every
 * tempo, so the bow goes the slower the slower the tune. The whole bow first gives the stroke nine tenths of the hair at
 * practice tempo, and less in even steps of tempo, never more than a calm bow draws in its time.
 * @param rungs at least 2, practice and dance tempo included
 */
export function bowSchedule(
  school: Schools['bowAmount'],
  { seconds, danceBpm, speed, hairCm }: ScheduledStroke,
  rungs = 6,
): ScheduledBow[] {
  const atDance = nominalLength(seconds, speed);
  const atPractice = school === 'whole-bow' ? Math.max(atDance, WHOLE_BOW_SHARE * hairCm) : atDance;
  return Array.from({ length: rungs }, (_, i) => {
    const way = i / (rungs - 1);
    const share = PRACTICE_SHARE + (1 - PRACTICE_SHARE) * way;
    const calm = Math.max(atDance, (CALM_SPEED * seconds) / share);
    const cm = Math.min(calm, atPractice + (atDance - atPractice) * way);
    return { bpm: danceBpm * share, cm, speed: seconds > 0 ? (cm * share) / seconds : 0 };
  });
}
