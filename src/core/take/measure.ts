import type { Seconds } from '#core/base';
import { envelopeOf, ownPartials, tracksOf } from './partials';

/** Amplitude of a pitch in steps, apart from others where it can be told. */
export function envelope(
  samples: Float32Array,
  hertz: number,
  others: readonly number[],
  span: { readonly from: Seconds; readonly to: Seconds; readonly step: Seconds; readonly window: Seconds },
): Float64Array {
  return envelopeOf(tracksOf(samples, hertz, ownPartials(hertz, others), span));
}

export const decibels = (ratio: number): number => 20 * Math.log10(Math.max(1e-9, ratio));

/** The value below which a share of all lies; NaN of none. */
export function quantile(values: ArrayLike<number>, share: number): number {
  const sorted = Float64Array.from(values).sort();
  return sorted.length === 0 ? NaN : sorted[Math.round(share * (sorted.length - 1))]!;
}

export const median = (values: ArrayLike<number>): number => quantile(values, 0.5);
