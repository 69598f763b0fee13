import type { Degrees } from '#core/base';
import type { Instrument } from '#core/instrument';
import { type Place, PLACES } from '#core/tune';

/** The strings the bow lies on, lowest first: one, or two neighbours. */
export type Plane = readonly [Place] | readonly [Place, Place];

const SINGLES: readonly Plane[] = PLACES.map((place) => [place]);
const PAIRS: readonly Plane[] = PLACES.slice(1).map((place, i) => [PLACES[i]!, place]);

/** The plane of one string, or of it and its lower neighbour; the same value for the same plane. The G has none. */
export function planeOf(place: Place, withLower: boolean): Plane {
  const at = PLACES.indexOf(place);
  return withLower && at > 0 ? PAIRS[at - 1]! : SINGLES[at]!;
}

/** The plane of two neighbour strings, in either order. */
export function pairPlane(one: Place, other: Place): Plane {
  return planeOf(PLACES.indexOf(one) > PLACES.indexOf(other) ? one : other, true);
}

export interface Interval {
  readonly low: Degrees;
  readonly high: Degrees;
}

/** Angle between the planes of two neighbour strings on the bridge's arc: 2·asin(s/2R). */
export function neighbourAngle({ stringSpacingMm, bridgeRadiusMm }: Instrument): Degrees {
  return (2 * Math.asin(stringSpacingMm / (2 * bridgeRadiusMm)) * 180) / Math.PI;
}

/** Angle at the middle of a plane: 0 lies on D and A together, positive toward E. */
export function planeAngle(plane: Plane, instrument: Instrument): Degrees {
  const at = plane.reduce((sum, place) => sum + PLACES.indexOf(place), 0) / plane.length;
  return (at - 1.5) * neighbourAngle(instrument);
}

/**
 * Angles at which the bow sounds just these strings: a single string half the neighbour angle less the margin either
 * way, a pair only the margin either way.
 */
export function planeInterval(plane: Plane, instrument: Instrument): Interval {
  const centre = planeAngle(plane, instrument);
  const { marginDegrees } = instrument;
  const half = plane.length === 2 ? marginDegrees : neighbourAngle(instrument) / 2 - marginDegrees;
  return { low: centre - half, high: centre + half };
}

/** Strings strictly between two planes, which a crossing sweeps over. */
export function skippedStrings(from: Plane, to: Plane): number {
  const [low, high] = planeRank(from) < planeRank(to) ? [from, to] : [to, from];
  return Math.max(0, PLACES.indexOf(high[0]) - PLACES.indexOf(low[low.length - 1]!) - 1);
}

/** `D`, or `DA` for a pair. */
export function planeName(plane: Plane): string {
  return plane.join('');
}

function planeRank(plane: Plane): number {
  return plane.reduce((sum, place) => sum + PLACES.indexOf(place), 0) / plane.length;
}
