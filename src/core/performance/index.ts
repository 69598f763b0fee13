// A checked plan as it is played: strokes, pitches, backing and clicks in seconds.
export type { Layer, Performance, PerformanceWish } from './perform';
export { LAYERS, PLAIN_WISH, perform } from './perform';
// Beats and offbeats where they are played.
export type { Beat, NoteBeat } from './beats';
export { beatsOf, beatsUnderNotes, offbeatOf } from './beats';
export { bowVelocities } from './velocities';
export { clickTrack } from './perform';
