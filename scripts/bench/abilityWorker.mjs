// On a thread of its own, as the server has it: what 5,000 attempts say of a player, some times over.
import { parentPort, workerData } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

// A thread does not have the loader of who started it.
register();
const { cleanChance, learntTogether, weightOf } = await import('#core/ability');
const { seeded } = await import('#core/base');

const { count, rounds } = workerData;
const random = seeded(1);
const kinds = ['stroke', 'crossing', 'hop', 'shift', 'cut', 'short-roll'];
const attempts = Array.from({ length: count }, (_, i) => {
  const margins = Object.fromEntries(kinds.map((kind) => [kind, -0.3 + 0.8 * random()]));
  return { margins, clean: random() < cleanChance(margins, {}), weight: weightOf(i / 20) };
});
const times = Array.from({ length: rounds }, () => {
  const begun = performance.now();
  learntTogether(attempts);
  return performance.now() - begun;
});
parentPort.postMessage({ kinds: kinds.length, times });
