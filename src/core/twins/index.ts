// Equal figures of a tune.
export type { TwinFigure } from './twins';
export { bowAlike, flippingSpots, playingShare, twinFigures } from './twins';
export { twinKeeper } from './twinKeeper';
// By what they are told apart.
export type { CountCue, CueKind } from './cues';
export { countCues } from './cues';
// The same hand on other strings.
export type { HandSpot, HandTwin } from './handTwins';
export { handTwins } from './handTwins';
// Hand and bowing, to be met again in other tunes.
export type { HandShapes, SharedHand } from './handShapes';
export { handShapes, sharedHands } from './handShapes';
// Phrases by their beginnings.
export type { PhraseEntry } from './phraseIndex';
export { phraseIndex } from './phraseIndex';
