class Watcher {
  observe() {}
  unobserve() {}
  disconnect() {}
}

/** Threads are started and never answer. */
class SilentWorker {
  addEventListener() {}
  removeEventListener() {}
  postMessage() {}
  terminate() {}
}

/** What the simulated page lacks of a browser: sizes, sight and threads. */
export function standInForBrowser(): void {
  Object.assign(globalThis, { ResizeObserver: Watcher, IntersectionObserver: Watcher, Worker: SilentWorker });
  Object.assign(window, { matchMedia: () => ({ matches: false, addEventListener() {}, removeEventListener() {} }) });
  Element.prototype.scrollIntoView = () => undefined;
}
