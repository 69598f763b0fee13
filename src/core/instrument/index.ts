// Figures of the fiddle and bow.
export type { Instrument } from './instrument';
export { FULL_SIZE, instrumentWith } from './instrument';
