import type { AwkwardSpot, ChordPair, OpenString, ScaleStop } from '#core/ground';
import { writtenPitch } from './pitch';

const FINGERS = ['open', 'first finger', 'second finger', 'third finger', 'fourth finger'];

/** `second finger low on E`. */
function fingerWords({ finger, lean, place }: ScaleStop): string {
  return `${FINGERS[finger]}${lean === 'plain' ? '' : ` ${lean}`} on ${place}`;
}

/** An awkward spot in words, with its millimetres. */
export function spotWords(spot: AwkwardSpot): string {
  switch (spot.kind) {
    case 'high-third':
      return `${writtenPitch(spot.stop.pitch)} is a high third finger on ${spot.stop.place}, ${spot.stop.mm.toFixed(0)} mm from the nut.`;
    case 'low-first':
      return `${writtenPitch(spot.stop.pitch)} draws the first finger back to ${spot.stop.mm.toFixed(0)} mm on ${spot.stop.place}.`;
    case 'extended-fourth':
      return `${writtenPitch(spot.stop.pitch)} wants the fourth finger stretched to ${spot.stop.mm.toFixed(0)} mm on ${spot.stop.place}.`;
    case 'split-finger':
      return `The ${FINGERS[spot.lower.finger]} has two places, ${spot.apartMm.toFixed(0)} mm apart: ${writtenPitch(spot.lower.pitch)} on ${spot.lower.place}, ${writtenPitch(spot.upper.pitch)} on ${spot.upper.place}.`;
    case 'wide-step':
      return `From ${writtenPitch(spot.lower.pitch)} to ${writtenPitch(spot.upper.pitch)} on ${spot.lower.place} are ${spot.apartMm.toFixed(0)} mm between neighbour fingers.`;
    case 'open-foreign':
      return `The open ${spot.place} string is no note of this key: it must not ring.`;
  }
}

export function openWords({ place, pitch, role }: OpenString): string {
  const words = { root: 'root, rings', fifth: 'fifth, rings', third: 'third', other: 'in the key' };
  return `${place} ${writtenPitch(pitch)}: ${role === null ? 'not in the key' : words[role]}`;
}

/** `D:0 A:0`, with what it asks for. */
export function pairWords({ lower, upper, isBarre, spanMm }: ChordPair): string {
  const calls = `${lower.place}:${lower.finger} ${upper.place}:${upper.finger}`;
  if (isBarre) return `${calls}, one finger across`;
  return spanMm > 0 ? `${calls}, reach ${spanMm.toFixed(0)} mm` : calls;
}

/** `first finger plain`, for a figure on a string. */
export function figureWords(stops: readonly ScaleStop[]): string {
  return stops.map((stop) => (stop.finger === 0 ? `open ${stop.place}` : fingerWords(stop))).join(', ');
}
