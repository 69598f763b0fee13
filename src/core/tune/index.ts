// The document.
export type {
  BarEvent,
  DanceType,
  Direction,
  Link,
  NoteEvent,
  NoteMark,
  Part,
  Place,
  RestEvent,
  Tune,
  TuneEvent,
  TupletMark,
} from './tune';
export { DANCE_TYPES, LINKS, NOTE_MARKS, PLACES, unpinned, writtenNotes } from './tune';
export type { Meter } from './meter';
export { PHRASE_BARS, barLength, isCompound, meterBeat, meterName, sameMeter } from './meter';
// The tune as it is played.
export type { Bar, Pass, PlayedBar, Unrolled, UnrolledNote } from './unroll';
export { barNumbers, barsOnPass, occurrencesOf, playedStretch, playsOf, unroll, writtenBars } from './unroll';
// How much music it may hold.
export type { LengthFault } from './lengths';
export { LengthGuard, MUSIC_BOUNDS, lengthFault } from './lengths';
// Whether its bars add up.
export type { BarSumFault } from './barSums';
export { barSumFaults } from './barSums';
// Changing it event by event.
export { mapEvents, mapNotes } from './mapEvents';
