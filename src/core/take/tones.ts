import type { HeardNote } from './heard';
import { decibels, median } from './measure';
import { distinctPartials, envelopeOf, tracksOf } from './partials';

const STEP = 0.01;
const WINDOW = 0.04;
/** Partials that make a low string speak, and those against which they are weighed. */
const LOW = [1, 2, 3] as const;
const HIGH = [4, 5, 6, 7, 8] as const;
const SHORTEST = 0.1;
/** So many notes on the other strings tell how a fiddle sounds through its microphone. */
const ENOUGH = 6;

/** How full notes of the lowest string sound: the level of their low partials against their higher ones, dB. */
export interface Tones {
  readonly low: readonly { readonly one: HeardNote; readonly fullness: number }[];
  /** The same of the other strings, the middle one; NaN: too few of them. */
  readonly others: number;
}

/** How full a place of the lowest string is, against the other strings: neither fiddle nor microphone are in it. */
export interface LowTone {
  readonly semitones: number;
  readonly decibels: number;
  readonly count: number;
}

/** Time O(length of the take). */
export function tonesOf(samples: Float32Array, notes: readonly HeardNote[]): Tones {
  const all = notes.flatMap((one) => {
    const fullness = fullnessOf(samples, one);
    return fullness === null ? [] : [{ one, fullness }];
  });
  const others = all.filter(({ one }) => one.note.place > 0).map(({ fullness }) => fullness);
  return {
    low: all.filter(({ one }) => one.note.place === 0),
    others: others.length >= ENOUGH ? median(others) : NaN,
  };
}

/** Place by place, against the other strings; nothing where these are too few. */
export function lowTonesOf({ low, others }: Tones): LowTone[] {
  if (Number.isNaN(others)) return [];
  return [...new Set(low.map(({ one }) => one.note.semitones))]
    .sort((a, b) => a - b)
    .map((semitones) => {
      const same = low.filter(({ one }) => one.note.semitones === semitones);
      return { semitones, decibels: median(same.map(({ fullness }) => fullness)) - others, count: same.length };
    });
}

/** null where it cannot be told. */
function fullnessOf(samples: Float32Array, { heard, otherCents, note, onset, soundsUntil }: HeardNote): number | null {
  const span = { from: onset + 0.04, to: soundsUntil - 0.03, step: STEP, window: WINDOW };
  if (!heard || otherCents !== null || note.hasGesture || span.to - span.from < SHORTEST) return null;
  const own = new Set(distinctPartials(note.hertz, note.secondHertz === null ? [] : [note.secondHertz]));
  const low = LOW.filter((k) => own.has(k));
  const high = HIGH.filter((k) => own.has(k));
  if (low.length < 2 || high.length < 3) return null;
  const level = (partials: readonly number[]) => median(envelopeOf(tracksOf(samples, note.hertz, partials, span)));
  return decibels(level(low) / level(high));
}
