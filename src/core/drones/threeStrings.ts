import type { Degrees, Millimetres } from '#core/base';
import { neighbourAngle } from '#core/crossing';
import type { Instrument } from '#core/instrument';

/** What a chord on three strings asks of the bow, rolled or pressed. */
export interface ThreeStrings {
  /** Rolled, the bow turns from the lower pair to the upper one. */
  readonly rollDegrees: Degrees;
  /** Pressed, the middle string gives way by this much under the hair at the bridge: R·(1 − cos θ), θ the neighbour angle. */
  readonly pressMm: Millimetres;
}

export function threeStrings(instrument: Instrument): ThreeStrings {
  const angle = neighbourAngle(instrument);
  return {
    rollDegrees: angle,
    pressMm: instrument.bridgeRadiusMm * (1 - Math.cos((angle * Math.PI) / 180)),
  };
}
