// What every browser has and the simulated page of the component tests lacks.
import { TextDecoder, TextEncoder } from 'node:util';

/** Enough for documents, which are JSON, and for samples. */
function structuredClone(value) {
  if (Array.isArray(value)) return value.map(structuredClone);
  if (ArrayBuffer.isView(value)) return value.slice();
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, structuredClone(one)]));
}

Object.assign(globalThis, { TextDecoder, TextEncoder, structuredClone });
