import { findingAt, type TakeFinding } from './finding';
import type { HeardNote } from './heard';
import { decibels, median } from './measure';
import { distinctPartials, envelopeOf, tracksOf } from './partials';
import type { TakeScene } from './scene';

const STEP = 0.01;
const WINDOW = 0.04;
/** Partials that make a low string speak, and those against which they are weighed. */
const LOW = [1, 2, 3] as const;
const HIGH = [4, 5, 6, 7, 8] as const;
/** A note is compared with itself elsewhere in the take: the body colours each otherwise. So often it must be there. */
const OFTEN = 2;
/** Half of an 80 % interval, dB. */
const UNSURE = 1.2;
const SHORTEST = 0.1;

/** The lowest string where a note's low partials are weak against what they are when the player plays it otherwise. */
export function toneFindings({ samples, heard, thresholds }: TakeScene): TakeFinding[] {
  const fullness = heard.notes.flatMap((one) => {
    const value = fullnessOf(samples, one);
    return value === null ? [] : [{ one, value }];
  });
  const low = fullness.filter(({ one }) => one.note.place === 0);
  return low.flatMap(({ one, value }) => {
    const same = low.filter((other) => other.one !== one && other.one.note.semitones === one.note.semitones);
    const usual = same.length >= OFTEN ? median(same.map((other) => other.value)) : NaN;
    return findingAt('cloudy-low-string', one, { figure: usual - value, uncertainty: UNSURE }, thresholds);
  });
}

/** Level of a note's low partials against its higher ones, dB; null where it cannot be told. */
function fullnessOf(samples: Float32Array, { heard, otherCents, note, onset, soundsUntil }: HeardNote): number | null {
  const span = { from: onset + 0.04, to: soundsUntil - 0.03, step: STEP, window: WINDOW };
  if (!heard || otherCents !== null || note.hasGesture || span.to - span.from < SHORTEST) return null;
  const own = new Set(distinctPartials(note.hertz, note.secondHertz === null ? [] : [note.secondHertz]));
  const [low, high] = [LOW.filter((k) => own.has(k)), HIGH.filter((k) => own.has(k))];
  if (low.length < 2 || high.length < 3) return null;
  const level = (partials: readonly number[]) => median(envelopeOf(tracksOf(samples, note.hertz, partials, span)));
  return decibels(level(low) / level(high));
}
