import { nutDistance } from '#core/fingering';
import { type Place, PLACES } from '#core/tune';
import type { ScaleStop } from './scale';

/** A spot of the key where the hand has trouble, with its figures. */
export type AwkwardSpot =
  | { readonly kind: 'high-third' | 'low-first' | 'extended-fourth'; readonly stop: ScaleStop }
  /** One finger wants two places on neighbour strings. */
  | { readonly kind: 'split-finger'; readonly lower: ScaleStop; readonly upper: ScaleStop; readonly apartMm: number }
  /** Neighbour fingers three semitones apart. */
  | { readonly kind: 'wide-step'; readonly lower: ScaleStop; readonly upper: ScaleStop; readonly apartMm: number }
  /** A string of the key has no open note of it. */
  | { readonly kind: 'open-foreign'; readonly place: Place };

/** Awkward spots of a key on its four strings, the hand's own first. Time O(n²) in the notes of a string. */
export function awkwardSpots(scale: readonly ScaleStop[], stringLengthMm: number): AwkwardSpot[] {
  const spots: AwkwardSpot[] = [];
  const apart = (a: ScaleStop, b: ScaleStop) =>
    Math.abs(nutDistance(a.semitones, stringLengthMm) - nutDistance(b.semitones, stringLengthMm));
  for (const [i, place] of PLACES.entries()) {
    const own = scale.filter((stop) => stop.place === place);
    const above = scale.filter((stop) => stop.place === PLACES[i + 1]);
    for (const stop of own) {
      if (stop.finger === 3 && stop.lean === 'high') spots.push({ kind: 'high-third', stop });
      if (stop.finger === 1 && stop.lean === 'low') spots.push({ kind: 'low-first', stop });
      if (
        stop.extension === 'high' &&
        !scale.some(({ place: other, semitones }) => other === PLACES[i + 1] && semitones <= 1)
      )
        spots.push({ kind: 'extended-fourth', stop });
      const next = own.find(({ finger }) => finger === stop.finger + 1);
      if (stop.finger > 0 && next && next.semitones - stop.semitones >= 3)
        spots.push({ kind: 'wide-step', lower: stop, upper: next, apartMm: apart(stop, next) });
      const across = above.find(({ finger }) => finger === stop.finger);
      if (
        stop.finger > 0 &&
        stop.extension !== 'high' &&
        across &&
        across.extension !== 'high' &&
        across.semitones !== stop.semitones
      )
        spots.push({ kind: 'split-finger', lower: stop, upper: across, apartMm: apart(stop, across) });
    }
    if (!own.some(({ finger }) => finger === 0)) spots.push({ kind: 'open-foreign', place });
  }
  return spots;
}
