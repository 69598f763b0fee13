import { findingAt, type TakeFinding } from './finding';
import type { HeardNote } from './hear';
import { decibels, median } from './measure';
import { distinctPartials, envelopeOf, tracksOf } from './partials';
import type { TakeScene } from './scene';

const STEP = 0.01;
const WINDOW = 0.04;
/** Partials that make a low string speak, and those against which they are weighed. */
const LOW = [1, 2, 3] as const;
const HIGH = [4, 5, 6, 7, 8] as const;
/** A string is compared with itself where it was heard so often, and else with the others, whose low partials are so much stronger. */
const OFTEN = 4;
const OTHERS_STRONGER = 4;
/** Half of an 80 % interval, dB. */
const UNSURE = 1.8;
const SHORTEST = 0.1;

/** The lowest string where its low partials are weak against what they are on the player's strings otherwise. */
export function toneFindings({ samples, heard, thresholds }: TakeScene): TakeFinding[] {
  const fullness = heard.notes.flatMap((one) => {
    const value = fullnessOf(samples, one);
    return value === null ? [] : [{ one, value }];
  });
  const low = fullness.filter(({ one }) => one.note.place === 0);
  const others = fullness.filter(({ one }) => one.note.place === 1);
  return low.flatMap(({ one, value }) => {
    // Nothing is as like a note as the same note.
    const beside = low.filter(
      (other) => other.one !== one && Math.abs(other.one.note.semitones - one.note.semitones) <= 2,
    );
    const usual =
      beside.length >= OFTEN
        ? median(beside.map((other) => other.value))
        : others.length >= OFTEN
          ? median(others.map((other) => other.value)) - OTHERS_STRONGER
          : NaN;
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
