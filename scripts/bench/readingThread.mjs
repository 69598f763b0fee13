// Reads a file as the page's worker does: tunes are handed on while the others are still read; null is the end.
import { parentPort } from 'node:worker_threads';
import { readInChunks } from '../../src/web/book/readBytes.ts';

parentPort.on('message', (bytes) => {
  for (const tunes of readInChunks(bytes, {})) parentPort.postMessage(tunes);
  parentPort.postMessage(null);
});
