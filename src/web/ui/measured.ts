/** Does a step of a redraw and leaves its time for the browser's tools and the benchmark to read. */
export function measured<T>(step: 'report' | 'states' | 'engraving' | 'signs', work: () => T): T {
  const start = performance.now();
  const result = work();
  // Where pages are tested without a browser there is no such clock.
  performance.measure?.(`morrin:${step}`, { start });
  return result;
}
