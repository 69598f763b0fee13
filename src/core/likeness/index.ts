// A melody on an even grid, whatever its key and ornaments.
export type { MelodyLine } from './melodyLines';
export { melodyLines, wholeLine } from './melodyLines';
// Its print, by which tunes like it are found among thousands.
export { MIN_SHARED, PRINT_SIZE, melodyPrint, sharedOf } from './melodyPrint';
// How alike two melodies are, counted exactly.
export type { Likeness } from './melodyLikeness';
export { ALIKE, MAX_COMPARED, SAME_TUNE, melodyLikeness } from './melodyLikeness';
// Tunes by their first notes.
export type { FirstNotes, FirstNotesRead } from './firstNotes';
export { FIRST_NOTES, firstNotes, readFirstNotes } from './firstNotes';
// Two settings of one tune side by side.
export type { AlignedBar, Agreement, BeatNote, VariantBar, VariantsAligned } from './alignVariants';
export { alignVariants } from './alignVariants';
