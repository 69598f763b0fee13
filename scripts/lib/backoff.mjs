// Waits between tries of what ends: longer each time, short again once it lived for a while.

const FIRST_MS = 250;
const LONGEST_MS = 4_000;
/** What ran this long before it ended is not what failed before. */
const STEADY_MS = 1_000;
/** Tries of what never ran: a kill in the middle of a start is no reason to give up. */
const FIRST_TRIES = 6;

/** Tells how long to wait before the next try, from how long the last one ran; 0 where it never did. */
export function backoff() {
  let wait = 0;
  return {
    next(livedMs) {
      wait = livedMs >= STEADY_MS || wait === 0 ? FIRST_MS : Math.min(LONGEST_MS, wait * 2);
      return wait;
    },
  };
}

/**
 * Keeps something running: started, waited for until it ends, and started again. What ran once is tried until it runs again;
 * what never did is given up after a few tries, and at once where its error says that no other try mends it.
 * @param start gives `{ ended }`, a promise of its end
 * @param isStopping asked before each try
 * @param tell is told of each end and failure, with the wait
 */
export async function keepRunning({
  start,
  isStopping,
  tell,
  sleep = (ms) => new Promise((go) => setTimeout(go, ms)),
  now = Date.now,
}) {
  const waits = backoff();
  let hasRun = false;
  let failures = 0;
  for (;;) {
    let readyAt = null;
    let failure = null;
    try {
      const { ended } = await start();
      readyAt = now();
      hasRun = true;
      await ended;
    } catch (error) {
      failures += 1;
      if (error.isFinal || (!hasRun && failures >= FIRST_TRIES)) throw error;
      failure = error;
    }
    if (isStopping()) return;
    const wait = waits.next(readyAt === null ? 0 : now() - readyAt);
    tell(failure, wait);
    await sleep(wait);
    if (isStopping()) return;
  }
}
