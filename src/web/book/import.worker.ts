import { expose } from 'comlink';
import { readBytes } from './readBytes';
import type { ImportWorker } from './importProtocol';

expose({
  readText: (bytes, onProgress) => readBytes(new Uint8Array(bytes), onProgress),
} satisfies ImportWorker);
