// Bytes to text, and what readers say of it.
export type { Decoded } from './decode';
export { decodeText } from './decode';
export { IMPORT_CODES, type ImportCode } from './codes';
export type { ImportMessage } from './messages';
export { OutOfBounds, lengthWords } from './lengths';
export { stopMessage } from './stopped';
export { implausibleWords, tuningFault } from './tuningWords';
export { FILE_START, TextPositions, importMessage } from './messages';
export type { ImportMatter, ReadSubject } from './matters';
