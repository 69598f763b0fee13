// A performance as a standard MIDI file.
export { TICKS_PER_QUARTER, writeMidi } from './writeMidi';
