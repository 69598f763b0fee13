// How two notes sound together.
export type { IntervalClass } from './intervals';
export { INTERVAL_CLASSES } from './intervals';
export type { Intonation } from './intonation';
export { LEADING_NOTE_CHOICES, intonationAgainst, openStringCents, unisonBeats } from './intonation';
// What may sound beside a note, ranked.
export type { EarWeights, RankedDrone, TonalRole } from './rank';
export { DEFAULT_EAR } from './rank';
export type { DroneScene, StoppedDouble } from './candidates';
export { droneScene, openDrones, stoppedDoubles } from './candidates';
export type { DoubleStop } from './sounding';
export { doubleStops } from './sounding';
// Drones for a whole line.
export type { DroneChoice, DroneLine, DroneWish, StoppedPartners } from './droneLine';
export { DRONE_WISHES, droneLine, droneShare, isPhraseEnd } from './droneLine';
export { lineChoices } from './lineChoices';
export { applyDrones, holdFinger } from './applyLine';
// Open strings doubled, and chords on three strings.
export type { Doubling } from './doublings';
export { doublings } from './doublings';
export type { ThreeStrings } from './threeStrings';
export { threeStrings } from './threeStrings';
// A short listening test.
export type { Answer, Sample } from './listening';
export { explained, fitEar, listeningPairs } from './listening';
