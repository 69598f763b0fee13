// Timing of two pieces of work side by side, so that the ratio holds on any machine.

/** Runs both in turn and gives each one's median in milliseconds, after some rounds to warm up. */
export function sideBySide(first, second, { rounds = 30, warmUp = 8 } = {}) {
  const times = [[], []];
  for (let round = -warmUp; round < rounds; round++)
    for (const [i, work] of [first, second].entries()) {
      const from = performance.now();
      work();
      if (round >= 0) times[i].push(performance.now() - from);
    }
  return times.map((list) => quantile(list, 0.5));
}

export function quantile(list, share) {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
}

export function sum(list) {
  return list.reduce((total, value) => total + value, 0);
}
