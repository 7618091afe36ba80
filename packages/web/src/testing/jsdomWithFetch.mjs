// jsdom has no fetch: hand the tests Node's own web APIs; and no window: it is a wide one, in which nothing changes its size or scrolls
import { TestEnvironment } from 'jest-environment-jsdom';

/** One way only, and nothing that keeps a process alive: React asks for one to come back later. */
class Channel {
  port1 = { onmessage: () => undefined };
  port2 = { postMessage: (data) => void setImmediate(() => this.port1.onmessage({ data })) };
}

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
      MessageChannel: Channel,
      ResizeObserver: class {
        observe() {}
        unobserve() {}
        disconnect() {}
      },
      // never idle: what nobody waits for is not loaded
      requestIdleCallback: () => 0,
      cancelIdleCallback: () => undefined,
      CSS: { supports: () => true, escape: (name) => name },
      matchMedia: () => ({ matches: false, addEventListener: () => undefined, removeEventListener: () => undefined }),
    });
    const { Blob, Element, FileReader, HTMLCanvasElement, HTMLElement } = this.global;
    Element.prototype.scrollIntoView = () => undefined;
    // a chart that is drawn without a canvas asks for one to measure its words, and for a width
    HTMLCanvasElement.prototype.getContext = () => null;
    const size = { configurable: true, get: () => 800 };
    Object.defineProperties(HTMLElement.prototype, { clientWidth: size, clientHeight: size });
    const read = (blob) =>
      new Promise((done) => {
        const reader = new FileReader();
        reader.onload = () => done(reader.result);
        reader.readAsArrayBuffer(blob);
      });
    Blob.prototype.arrayBuffer = function () {
      return read(this);
    };
    Blob.prototype.text = async function () {
      return new TextDecoder().decode(await read(this));
    };
  }
}
