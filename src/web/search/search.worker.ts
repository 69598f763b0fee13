import { expose } from 'comlink';
import { reportTune } from '#core/report';
import { proposeBowings } from '#core/search';
import type { SearchWorker } from './searchProtocol';

expose({
  propose: ({ tune, options, wishes, count }, onFound) =>
    proposeBowings(reportTune(tune, options), wishes, count, onFound),
} satisfies SearchWorker);
