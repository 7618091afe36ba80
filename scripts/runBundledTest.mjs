// A Jest transform: of a test file its bundle is run.
import { bundledTest } from './bundleTests.mjs';

export default {
  getCacheKey: (_, file) => file.replace(/\W/g, '_').slice(-150),
  process: (_, file) => ({ code: `import ${JSON.stringify(bundledTest(file))};` }),
};
