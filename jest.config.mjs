import fs from 'node:fs';
import { bundle } from './scripts/bundle.mjs';

/** What runs on Node above core takes it as one file, which saves a tenth; core's own tests take its sources. */
const core = `${import.meta.dirname}/.cache/core.mjs`;
fs.renameSync(await bundle('packages/core/src/index.ts', `.cache/core-${process.pid}.mjs`), core);

const swc = (tsx) => [
  '@swc/jest',
  {
    jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx }, transform: { react: { runtime: 'automatic' } } },
    module: { type: 'es6' },
    sourceMaps: 'inline',
    swcrc: false,
  },
];
const common = {
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: { '^.+\\.ts$': swc(false), '^.+\\.tsx$': swc(true) },
};
// never 'import' here: Jest's own require() calls would then be given .mjs files
const node = {
  testEnvironment: 'node',
  testEnvironmentOptions: { customExportConditions: ['@syndeton/source', 'node', 'node-addons'] },
};
const project = (name, extra) => ({
  ...common,
  ...node,
  displayName: name,
  roots: [`<rootDir>/packages/${name}/src`],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  ...extra,
});
const onCore = { '^@syndeton/core$': core };

export default {
  testTimeout: 240_000,
  // one more than CI has cores: a test that waits for a server or a browser leaves its core to others
  maxWorkers: 3,
  projects: [
    project('core'),
    project('contract', { moduleNameMapper: onCore }),
    project('cli', { moduleNameMapper: onCore }),
    project('server', {
      moduleNameMapper: onCore,
      globalSetup: '<rootDir>/packages/server/src/testing/startDatabase.mjs',
      globalTeardown: '<rootDir>/packages/server/src/testing/stopDatabase.mjs',
    }),
    project('web', {
      testEnvironment: '<rootDir>/packages/web/src/testing/jsdomWithFetch.mjs',
      testEnvironmentOptions: { customExportConditions: ['@syndeton/source', 'browser'] },
      moduleNameMapper: { '\\.(css|woff2)$': '<rootDir>/packages/web/src/testing/emptyStyle.mjs' },
    }),
  ],
};
