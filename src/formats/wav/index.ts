// Samples to a sound file, and from one.
export { writeWav } from './writeWav';
export { MAX_WAV_BYTES, readWav, WAV_RATES, WavFault, type WavFaultCode, type WavSound } from './readWav';
