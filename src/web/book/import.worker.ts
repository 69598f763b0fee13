import { expose } from 'comlink';
import { readBytes } from './readBytes';
import type { ImportWorker } from './importProtocol';

expose({ readText: readBytes } satisfies ImportWorker);
