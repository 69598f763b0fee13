import { FREE_HAND, type Hand } from '#core/fingering';
import { type Instrument, instrumentWith } from '#core/instrument';
import { DEFAULT_SCHOOLS, type Schools } from '#core/schools';
import { type Bands, DEFAULT_REGION, type DottedRatios, type Lilt, type Limits, limitsWith } from '#core/tempo';

/** The player's and the fiddle's figures, and how things are done. */
export interface PlayerSettings {
  readonly limits: Limits;
  readonly instrument: Instrument;
  readonly schools: Schools;
  /** What the left hand can and shall do. */
  readonly hand: Hand;
  /** At which tempos the dances are danced. */
  readonly bands: Bands;
  /** Long to short of written dotted pairs, where the player has them otherwise than the dance. */
  readonly dottedRatios: DottedRatios;
  /** Lilts beside those that come along. */
  readonly lilts: readonly Lilt[];
}

/** Guesses and what is usual, until the player gives better. */
export function defaultSettings(): PlayerSettings {
  return {
    limits: limitsWith(),
    instrument: instrumentWith({}),
    schools: DEFAULT_SCHOOLS,
    hand: FREE_HAND,
    bands: DEFAULT_REGION,
    dottedRatios: {},
    lilts: [],
  };
}
