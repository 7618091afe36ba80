// jsdom has no fetch: hand the tests Node's own web APIs; and no window: it is a wide one, in which nothing changes its size
import { TestEnvironment } from 'jest-environment-jsdom';

export default class extends TestEnvironment {
  constructor(config, context) {
    super(config, context);
    Object.assign(this.global, {
      fetch,
      Request,
      Response,
      Headers,
      structuredClone,
      TextEncoder,
      TextDecoder,
      ReadableStream,
      ResizeObserver: class {
        observe() {}
        unobserve() {}
        disconnect() {}
      },
      matchMedia: () => ({ matches: false, addEventListener: () => undefined, removeEventListener: () => undefined }),
    });
  }
}
