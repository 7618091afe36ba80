// jsdom has no fetch: hand the tests Node's own web APIs
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
    });
  }
}
