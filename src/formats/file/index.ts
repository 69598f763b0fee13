// Any file of tunes, told by what is in it; and tunes as files of a kind.
export type { FileRead, FileTune } from './readFile';
export { readFile } from './readFile';
export { FILE_FORMATS, type FileChoice, type WriteOptions } from './fileFormats';
export { MAX_ENTRIES, MAX_UNZIPPED_BYTES } from './unzip';
