import { findingAt, type TakeFinding } from './finding';
import { median } from './measure';
import type { TakeScene } from './scene';

/** A note is compared with itself elsewhere in the take: the body colours each otherwise. So often it must be there. */
const OFTEN = 2;
/** Halves of 80 % intervals, dB: within a take, and against others. */
const UNSURE = { within: 1.2, against: 2 } as const;

/**
 * The lowest string where a note's low partials are weak: against what they are in the takes that the player accepted, or
 * else where it is played otherwise in this one.
 */
export function toneFindings({ tones: { low, others }, reference, thresholds }: TakeScene): TakeFinding[] {
  return low.flatMap(({ one, fullness }) => {
    const { semitones } = one.note;
    const accepted = reference?.lowTones.find((tone) => tone.semitones === semitones);
    if (accepted && !Number.isNaN(others)) {
      const figure = { figure: accepted.decibels - (fullness - others), uncertainty: UNSURE.against };
      return findingAt('cloudy-low-string', one, figure, thresholds);
    }
    const same = low.filter((other) => other.one !== one && other.one.note.semitones === semitones);
    const usual = same.length >= OFTEN ? median(same.map((other) => other.fullness)) : NaN;
    return findingAt('cloudy-low-string', one, { figure: usual - fullness, uncertainty: UNSURE.within }, thresholds);
  });
}
