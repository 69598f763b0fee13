import { expose } from 'comlink';
import { readBytes } from './readBytes';
import type { ImportWorker } from './importProtocol';

expose({
  readFile: (bytes, choice, onProgress) => readBytes(new Uint8Array(bytes), choice, onProgress),
} satisfies ImportWorker);
