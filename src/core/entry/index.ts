// Notes as they are called out, by string and finger or by letter.
export type { Call, CalledNote } from './calls';
export { calledNote, parseCall } from './calls';
export type { LetterCall } from './letters';
export { letteredPitch, parseLetter } from './letters';
export type { GracesRead } from './graces';
export { MAX_GRACES, readGraces, writeGraces } from './graces';
// The rhythm into which they fall.
export type { EntryRhythm, RhythmStep, StrokeGesture } from './rhythm';
export { STROKE_GESTURES, TUPLETS, chooseGesture, rhythmStep, scaleUnit, startRhythm } from './rhythm';
