import type { Seconds } from '#core/base';
import type { HeardNote } from './heard';
import { decibels, envelope, median, quantile } from './measure';
import { envelopeOf, tracksOf } from './partials';

/** A stroke scratches while what lies between its partials is above this, and so much above what it comes to later, dB. */
const NOISY = { line: -46, above: 7 } as const;
const LOOK_SECONDS = 0.17;
/** Between which partials one listens. */
const BETWEEN = [2.5, 3.5, 4.5, 5.5, 6.5, 7.5] as const;
const HIGHEST = 8000;
/** Shorter strokes are not judged. */
const SHORTEST: Seconds = 0.12;
/** Steps within which noise begins. */
const AT_FIRST = 4;
/** Hz from a partial of the note before, which rings on. */
const RINGS_WITHIN = 45;

/** Plain strokes of a take, and how long each is noise before its pitch stands. */
export interface Bites {
  readonly strokes: readonly HeardNote[];
  readonly times: readonly Seconds[];
}

export function bitesOf(samples: Float32Array, notes: readonly HeardNote[]): Bites {
  const strokes = notes.filter(
    ({ heard, otherCents, note, onset, end }) =>
      heard &&
      otherCents === null &&
      note.startsStroke &&
      note.secondHertz === null &&
      !note.hasGesture &&
      note.marks.length === 0 &&
      end - onset > SHORTEST,
  );
  return { strokes, times: strokes.map((one) => noisySeconds(samples, one)) };
}

/** The middle of them, ms; null where there are none. */
export function usualBiteMs({ times }: Bites): number | null {
  return times.length > 0 ? 1000 * median(times) : null;
}

function noisySeconds(samples: Float32Array, { note: { hertz }, before, onset, end }: HeardNote): number {
  const span = { from: onset - 0.015, to: Math.min(onset + LOOK_SECONDS, end - 0.02), step: 0.005, window: 0.03 };
  const own = quantile(envelope(samples, hertz, [], span), 0.8);
  const rings = before === null ? [] : [before.hertz, ...(before.secondHertz === null ? [] : [before.secondHertz])];
  const isFree = (at: number) => rings.every((other) => Math.abs(at - other * Math.round(at / other)) > RINGS_WITHIN);
  const places = BETWEEN.filter((k) => k * hertz < HIGHEST);
  const free = places.filter((k) => isFree(k * hertz));
  const between = (free.length >= 2 ? free : places).map((k) => envelopeOf(tracksOf(samples, k * hertz, [1], span)));
  const noise = Array.from(between[0] ?? [], (_, i) => decibels(median(between.map((one) => one[i]!)) / own));
  const line = Math.max(NOISY.line, median(noise) + NOISY.above);
  // Until it has been quiet for two steps.
  let until = 0;
  for (let i = 0; i < noise.length && i <= Math.max(AT_FIRST, until + 1); i++) if (noise[i]! > line) until = i + 1;
  return span.step * until;
}
