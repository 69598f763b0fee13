// What readers of notation give.
export type { ReadResult, ReadTune, Voice } from './readTune';
// Bars as a reader comes upon them; with their signs put together to parts and form.
export type { OpenNote, OpenTuplet, Sounding } from './partBuilder';
export { PartBuilder } from './partBuilder';
export type { RawBar } from './structure';
export { readOrder } from './structure';
export type { Assembled } from './assemble';
export { assemble } from './assemble';
// What plain notation says of a tune, and what must be said in words beside it.
export type { PlainScore } from './plainScore';
export { downwards, opensWithPickup, plainScore } from './plainScore';
export type { DirectiveName, MorrinDirectives } from './directiveTable';
export { applyDirectives, directiveLines } from './directives';
export { readDirectives } from './readDirectives';
// Bars that do not add up, where they stand.
export { barSumMessages } from './barSumMessages';
// Lengths as notes have them.
export { splitLength } from './noteLengths';
