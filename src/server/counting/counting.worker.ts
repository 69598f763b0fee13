import { parentPort } from 'node:worker_threads';
import { expose } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import { countTunes } from './countTunes';

if (!parentPort) throw new Error('counting.worker: expected to be started as a worker thread');
expose({ countTunes }, nodeEndpoint(parentPort));
