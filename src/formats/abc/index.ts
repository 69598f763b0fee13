// ABC in and out.
export { readAbc, readAbcTunes } from './readAbc';
export { writeAbc } from './writeAbc';
