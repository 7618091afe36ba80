/** Its tests run as bundles, made before them; what is not bundled is run as it lies in node_modules. */
const project = (name, extra) => ({
  displayName: name,
  roots: [`<rootDir>/packages/${name}/src`],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: { '\\.test\\.tsx?$': '<rootDir>/scripts/runBundledTest.mjs' },
  globalSetup: `<rootDir>/packages/${name}/src/testing/bundleTests.mjs`,
  testEnvironment: 'node',
  ...extra,
});

export default {
  testTimeout: 240_000,
  // one more than CI has cores: a test that waits for a server or a browser leaves its core to others
  maxWorkers: 3,
  projects: [
    project('core', {
      globalSetup: '<rootDir>/packages/core/src/testing/startChromium.mjs',
      globalTeardown: '<rootDir>/packages/core/src/testing/stopChromium.mjs',
    }),
    project('contract'),
    project('cli'),
    project('server', {
      globalSetup: '<rootDir>/packages/server/src/testing/startDatabase.mjs',
      globalTeardown: '<rootDir>/packages/server/src/testing/stopDatabase.mjs',
    }),
    project('web', { testEnvironment: '<rootDir>/packages/web/src/testing/jsdomWithFetch.mjs' }),
  ],
};
