// The ABC player of its own make that tests of written files are checked against.
import { ensurePackages } from './lib/debian.mjs';

export default () => ensurePackages(['abcmidi']);
