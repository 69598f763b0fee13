// Samples to a sound file.
export { writeWav } from './writeWav';
