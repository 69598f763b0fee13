// Any file of tunes, told by what is in it.
export type { FileChoice, FileKind, FileRead, FileTune } from './readFile';
export { readFile } from './readFile';
export { MOST_ENTRIES, MOST_UNZIPPED_BYTES } from './unzip';
