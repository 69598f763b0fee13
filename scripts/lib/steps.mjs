// Steps of a test run side by side, as many as the machine has room for.

/**
 * Starts the steps in their order, each as soon as there is room for it, and waits for all: one that fails hides no other.
 * @param steps `{ name, size, run }`; `run` gives `{ passed, failed }`, and one that throws has failed
 * @param room  sum of sizes that may run at once
 * @returns for each step its counts and seconds
 */
export async function runSteps(steps, room) {
  let free = room;
  const waiting = [];
  const take = async (size) => {
    while (free < size) await new Promise((resolve) => waiting.push(resolve));
    free -= size;
  };
  const running = [];
  for (const { name, size, run } of steps) {
    await take(Math.min(size, room));
    console.log(`— ${name} …`);
    const begun = performance.now();
    const step = run()
      .catch((error) => {
        console.error(`${name}: ${error.message}`);
        return { passed: 0, failed: 1 };
      })
      .then((counts) => {
        const seconds = (performance.now() - begun) / 1000;
        console.log(`— ${name}: ${counts.failed === 0 ? 'passed' : 'failed'} in ${seconds.toFixed(0)} s`);
        free += Math.min(size, room);
        waiting.shift()?.();
        return { name, seconds, ...counts };
      });
    running.push(step);
  }
  return Promise.all(running);
}
