// A checked plan as it is played: strokes, pitches, backing and clicks in seconds.
export type { Layer } from './layers';
export { LAYERS } from './layers';
export type { Performance, PerformanceWish } from './perform';
export { PLAIN_WISH, clickTrack, perform } from './perform';
// Beats and offbeats where they are played.
export type { Beat, NoteBeat } from './beats';
export { beatsOf, beatsUnderNotes, offbeatOf } from './beats';
export { bowVelocities } from './velocities';
