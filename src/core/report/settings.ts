import { type Instrument, instrumentWith } from '#core/instrument';
import { type Schools, USUAL_SCHOOLS } from '#core/schools';
import { type Limits, limitsWith } from '#core/tempo';

/** The player's and the fiddle's figures, and how things are done. */
export interface PlayerSettings {
  readonly limits: Limits;
  readonly instrument: Instrument;
  readonly schools: Schools;
}

/** Guesses and what is usual, until the player gives better. */
export function defaultSettings(): PlayerSettings {
  return { limits: limitsWith(), instrument: instrumentWith({}), schools: USUAL_SCHOOLS };
}
