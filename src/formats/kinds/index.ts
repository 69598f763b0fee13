// Kinds of files of tunes, without what reads and writes them.
export { ALL_FILE_KINDS, CHOSEN_EXTENSIONS, FILE_KINDS, type FileKind, READ_EXTENSIONS } from './fileKinds';
