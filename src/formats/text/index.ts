// Bytes to text, and what readers say of it.
export type { Decoded } from './decode';
export { decodeText } from './decode';
export type { ImportCode, ImportMessage } from './messages';
export { OutOfBounds, lengthWords } from './lengths';
export { stopMessage } from './stopped';
export { implausibleWords, tuningFault } from './tuningWords';
export { IMPORT_CODES, TextPositions, importMessage } from './messages';
