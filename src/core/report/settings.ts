import { type Instrument, instrumentWith } from '#core/instrument';
import { type Limits, limitsWith } from '#core/tempo';

/** The player's and the fiddle's figures. */
export interface LimitsAndInstrument {
  readonly limits: Limits;
  readonly instrument: Instrument;
}

/** Guesses for both, until the player gives better. */
export function defaultSettings(): LimitsAndInstrument {
  return { limits: limitsWith(), instrument: instrumentWith({}) };
}
