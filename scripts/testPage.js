// What every browser has and the simulated page of the component tests lacks.
import { TextDecoder, TextEncoder } from 'node:util';

Object.assign(globalThis, {
  TextDecoder,
  TextEncoder,
  // Enough for documents, which are JSON.
  structuredClone: (value) => JSON.parse(JSON.stringify(value)),
});
