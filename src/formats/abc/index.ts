// ABC in and out.
export type { ReadResult, ReadTune } from './readAbc';
export { readAbc, readAbcTunes } from './readAbc';
export { writeAbc } from './writeAbc';
