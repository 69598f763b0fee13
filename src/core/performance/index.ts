// A checked plan as it is played: strokes, pitches, backing and clicks in seconds.
export type { Layer } from './layers';
export { LAYERS } from './layers';
export type { PlayedPlan } from './soundingTime';
export type { Performance, Playing } from './perform';
export type { PerformanceWish } from './wish';
export { clickTrack, perform, playNotes } from './perform';
export { hertzAt, type Move, pitchGesture } from './gestures';
export { PULSE_DECIBELS } from './strings';
export { PLAIN_WISH } from './wish';
// Beats and offbeats where they are played.
export type { Beat, NoteBeat } from './beats';
export { beatsOf, beatsUnderNotes, offbeatOf } from './beats';
export { bowVelocities } from './velocities';
