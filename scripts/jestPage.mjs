import { TestEnvironment } from 'jest-environment-jsdom';

/** What every browser has and the test's page has not, from Node. */
const LACKING = ['TextEncoder', 'TextDecoder', 'fetch', 'Request', 'Response', 'Headers', 'structuredClone'];

/** A page to draw components in. */
export default class PageEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    for (const name of LACKING) this.global[name] ??= globalThis[name];
    this.global.isSecureContext ??= true;
    this.global.AbortSignal.timeout ??= AbortSignal.timeout.bind(AbortSignal);
    // Pictures are not drawn here; what is drawn on them is not looked at.
    this.global.HTMLCanvasElement.prototype.getContext = () => null;
    this.global.scrollTo = () => {};
    this.global.ResizeObserver ??= class {
      observe() {}
      unobserve() {}
      disconnect() {}
    };
    this.global.matchMedia ??= () => ({ matches: false, addEventListener() {}, removeEventListener() {} });
  }
}
