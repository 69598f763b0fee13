import { expose } from 'comlink';
import type { ImportWorker } from './importProtocol';
import { readInChunks } from './readBytes';

expose({
  readFile: (bytes, choice, onTunes) => {
    const chunks = readInChunks(new Uint8Array(bytes), choice);
    for (let count = 0; ;) {
      const next = chunks.next();
      if (next.done) return { count, messages: next.value };
      count += next.value.length;
      onTunes(next.value);
    }
  },
} satisfies ImportWorker);
