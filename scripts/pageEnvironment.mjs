// The simulated page of the component tests, with what every browser has and it lacks: fetch and what belongs to it.
import { TestEnvironment } from 'jest-environment-jsdom';

export default class PageEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    Object.assign(this.global, { fetch, Request, Response, Headers, AbortController, AbortSignal });
  }
}
