import { defineConfig, devices } from '@playwright/test';
import { chromiumArgs, chromiumPath } from '../scripts/chromium.mjs';

const port = Number(process.env['E2E_PORT'] ?? 18099);
/** So many files at once, each lane with a server and a database of its own. */
const lanes = 2;
const portOf = (lane: number): number => port + lane;

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: 'test-results',
  workers: lanes,
  retries: 0,
  timeout: 300_000,
  expect: { timeout: 45_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/report.json' }]],
  use: {
    ...devices['Desktop Chrome'],
    baseURL: `http://127.0.0.1:${portOf(Number(process.env['TEST_PARALLEL_INDEX'] ?? 0))}`,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'UTC',
    launchOptions: { executablePath: chromiumPath, args: chromiumArgs },
    trace: process.env['E2E_TRACE'] ? 'retain-on-failure' : 'off',
    actionTimeout: 30_000,
    reducedMotion: 'reduce',
  },
  webServer: Array.from({ length: lanes }, (_, lane) => ({
    command: `node server.mjs ${portOf(lane)}`,
    url: `http://127.0.0.1:${portOf(lane)}/api/health`,
    reuseExistingServer: false,
    timeout: 60_000,
    gracefulShutdown: { signal: 'SIGTERM' as const, timeout: 15_000 },
    stdout: 'ignore' as const,
    stderr: 'pipe' as const,
  })),
});
