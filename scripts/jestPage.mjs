import { TestEnvironment } from 'jest-environment-jsdom';

/** What every browser has and the test's page has not, from Node. */
const LACKING = ['TextEncoder', 'TextDecoder', 'fetch', 'Request', 'Response', 'Headers', 'structuredClone'];

const blank = (width, height) => ({ data: new Uint8ClampedArray(4 * (width || 1) * (height || 1)) });

/** A page to draw components in. */
export default class PageEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    for (const name of LACKING) this.global[name] ??= globalThis[name];
    this.global.isSecureContext ??= true;
    this.global.AbortSignal.timeout ??= AbortSignal.timeout.bind(AbortSignal);
    // Pictures are not drawn here; what is drawn on them is not looked at.
    const drawn = { measureText: () => ({ width: 0 }), createImageData: blank, getImageData: blank };
    const pen = new Proxy(drawn, { get: (of, name) => of[name] ?? (() => pen), set: () => true });
    this.global.HTMLCanvasElement.prototype.getContext = (kind) => (kind === '2d' ? pen : null);
    this.global.HTMLCanvasElement.prototype.toBlob = (done) => done(null);
    this.global.Element.prototype.scrollIntoView ??= () => {};
    this.global.URL.createObjectURL ??= () => 'blob:here';
    this.global.URL.revokeObjectURL ??= () => {};
    this.global.print = () => {};
    this.global.Path2D ??= class {
      constructor() {
        return pen;
      }
    };
    this.global.scrollTo = () => {};
    this.global.ResizeObserver ??= class {
      observe() {}
      unobserve() {}
      disconnect() {}
    };
    this.global.matchMedia ??= () => ({ matches: false, addEventListener() {}, removeEventListener() {} });
  }
}
