import type { Centimetres, Degrees, Millimetres } from '#core/base';

/** Figures of the fiddle and bow; all editable. */
export interface Instrument {
  readonly stringLengthMm: Millimetres;
  /** Radius of the arc on which the strings lie at the bridge; flatter for many dance fiddlers. */
  readonly bridgeRadiusMm: Millimetres;
  readonly stringSpacingMm: Millimetres;
  /** Room kept from a neighbour string. */
  readonly marginDegrees: Degrees;
  /** Usable hair. */
  readonly hairCm: Centimetres;
  /** Where dance strokes live, from the frog. */
  readonly sweetSpotCm: Centimetres;
  /** Half the width of the working window. */
  readonly windowHalfCm: Centimetres;
}

/** The sweet spot lies at this share of the hair, a guess: a little beyond the balance point at 0.30. */
export const SWEET_SPOT_SHARE = 0.42;
/** Half-width of the working window as a share of the hair, a guess. */
export const WINDOW_HALF_SHARE = 0.15;

/** A full-size fiddle. Bridge radius 42 mm and spacing 11.5 mm are common set-up figures; hair 63 cm is a guess. */
export const FULL_SIZE: Instrument = {
  stringLengthMm: 328,
  bridgeRadiusMm: 42,
  stringSpacingMm: 11.5,
  marginDegrees: 1,
  hairCm: 63,
  sweetSpotCm: SWEET_SPOT_SHARE * 63,
  windowHalfCm: WINDOW_HALF_SHARE * 63,
};

/** A full instrument from the figures that differ from a full-size fiddle; sweet spot and window follow the hair. */
export function instrumentWith(figures: Partial<Instrument>): Instrument {
  const hairCm = figures.hairCm ?? FULL_SIZE.hairCm;
  return {
    ...FULL_SIZE,
    sweetSpotCm: SWEET_SPOT_SHARE * hairCm,
    windowHalfCm: WINDOW_HALF_SHARE * hairCm,
    ...figures,
  };
}
