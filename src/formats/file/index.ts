// Any file of tunes, told by what is in it.
export type { FileChoice, FileKind, FileRead, FileTune } from './readFile';
export { readFile } from './readFile';
export { MAX_ENTRIES, MAX_UNZIPPED_BYTES } from './unzip';
