// The notes of a key under the hand.
export type { Lean, ScaleStop } from './scale';
export { leanOf, rangeOf, scaleOnString } from './scale';
// Its usual chords, and what the open strings are to it.
export type { ChordFigure, ChordPair, Degree, OpenString } from './chords';
export { DEGREES, chordFigure, openStrings } from './chords';
// Where the hand has trouble.
export type { AwkwardSpot } from './awkward';
export { awkwardSpots } from './awkward';
// Whether the stated mode is the real one.
export type { ModeCheck, ModeFit } from './mode';
export { modeCheck } from './mode';
