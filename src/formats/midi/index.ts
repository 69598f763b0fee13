// A performance as a standard MIDI file.
export { TICKS_PER_QUARTER, writeMidi } from './writeMidi';
// A melody from a MIDI file, quantised.
export type { Grid } from './quantise';
export type { MidiChoice, ReadMidi } from './readMidi';
export { readMidi } from './readMidi';
