import { defineConfig, devices } from '@playwright/test';
import { chromiumArgs, chromiumPath } from '../scripts/chromium.mjs';

const port = Number(process.env['E2E_PORT'] ?? 18099);

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: 'test-results',
  workers: 1,
  retries: 0,
  timeout: 300_000,
  expect: { timeout: 45_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/report.json' }]],
  use: {
    ...devices['Desktop Chrome'],
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'UTC',
    launchOptions: { executablePath: chromiumPath, args: chromiumArgs },
    trace: process.env['E2E_TRACE'] ? 'retain-on-failure' : 'off',
    actionTimeout: 30_000,
    reducedMotion: 'reduce',
  },
  webServer: {
    command: `node server.mjs ${port}`,
    url: `http://127.0.0.1:${port}/api/health`,
    reuseExistingServer: false,
    timeout: 60_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 15_000 },
    stdout: 'ignore',
    stderr: 'pipe',
  },
});
