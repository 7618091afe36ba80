// A Jest transform: of a test file its bundle is run.
import { createHash } from 'node:crypto';
import { bundledTest } from './bundleTests.mjs';

export default {
  getCacheKey: (_, file) => createHash('sha1').update(file).digest('hex'),
  process: (_, file) => ({ code: `import ${JSON.stringify(bundledTest(file))};` }),
};
