// npm test: types, build, then what does not wait for anything, Jest and Playwright; ends with the sums of all runners.
import { execFile, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import { chromiumPath } from './chromium-path.mjs';

const steps = [];
let passed = 0;
let failed = 0;

/** Runs a step and shows its output; counts one test for it unless it counts its own. */
function step(name, command, args, count) {
  console.log(`\n— ${name}`);
  const started = Date.now();
  const run = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, FORCE_COLOR: '0' } });
  const ok = run.status === 0;
  record(name, ok, started, count?.());
  return ok;
}

/** Steps that do not wait for each other, two at a time. */
async function together(list) {
  const waiting = [...list];
  const worker = async () => {
    for (let next = waiting.shift(); next; next = waiting.shift()) {
      const [name, command, args] = next;
      const started = Date.now();
      const { ok, output } = await new Promise((resolve) =>
        execFile(command, args, { encoding: 'utf8', maxBuffer: 1e8 }, (error, stdout, stderr) =>
          resolve({ ok: !error, output: stdout + stderr }),
        ),
      );
      console.log(`\n— ${name}\n${output.trim()}`);
      record(name, ok, started);
    }
  };
  await Promise.all([worker(), worker()]);
}

function record(name, ok, started, counted) {
  passed += counted?.passed ?? (ok ? 1 : 0);
  failed += counted?.failed ?? (ok ? 0 : 1);
  if (counted && !ok && counted.failed === 0) failed++;
  steps.push(`${ok ? 'ok    ' : 'FAILED'} ${name} (${Math.round((Date.now() - started) / 1000)} s)`);
}

const bin = (name) => `node_modules/.bin/${name}`;
const tsc = 'node_modules/typescript-native/bin/tsc';
if (!fs.existsSync('node_modules/.package-lock.json')) step('packages', 'npm', ['ci']);
if (!fs.existsSync(chromiumPath)) installChromium();
if (spawnSync('java', ['-version']).status !== 0) installJava();
fs.rmSync('e2e/test-results', { recursive: true, force: true });
step('types', process.execPath, [tsc, '-b', 'packages/cli', 'packages/server', 'packages/web']);
const isBuilt = step('build', 'npm', ['run', '--silent', 'build']);
// the longest first
await together([
  ['lint', bin('oxlint'), []],
  ...(isBuilt ? [['kills', process.execPath, ['--import', 'tsx', 'endurance/killTests.ts', '4', '1']]] : []),
  ['types of tests', process.execPath, [tsc, '-p', 'tsconfig.test.json']],
  ['oracle', 'npm', ['run', '--silent', 'oracle', '--', '--demo', '--sample', '5', '--generated', '60', '--alternate']],
  ['format', bin('oxfmt'), ['--check']],
  ['imports', bin('depcruise'), ['packages', '--config', '.dependency-cruiser.cjs', '--output-type', 'err']],
]);
const jest = [
  // as the server and the command line have it: see startThread.ts
  '--no-allocation-site-pretenuring',
  '--experimental-vm-modules',
  '--disable-warning=ExperimentalWarning',
  'node_modules/jest/bin/jest.js',
  '--json',
  '--outputFile=.cache/jest.json',
  '--testLocationInResults=false',
];
fs.mkdirSync('.cache', { recursive: true });
fs.rmSync('.cache/jest.json', { force: true });
step('jest', process.execPath, jest, jestCounts);
if (isBuilt) step('playwright', bin('playwright'), ['test', '-c', 'e2e/playwright.config.ts'], playwrightCounts);

console.log(`\n${steps.join('\n')}\n`);
console.log(`${passed} passed, ${failed} failed`);
process.exitCode = failed > 0 || passed === 0 ? 1 : 0;

function jestCounts() {
  if (!fs.existsSync('.cache/jest.json')) return { passed: 0, failed: 1 };
  const report = JSON.parse(fs.readFileSync('.cache/jest.json', 'utf8'));
  return { passed: report.numPassedTests, failed: report.numFailedTests + report.numRuntimeErrorTestSuites };
}

function playwrightCounts() {
  const file = 'e2e/test-results/report.json';
  if (!fs.existsSync(file)) return { passed: 0, failed: 1 };
  const { stats } = JSON.parse(fs.readFileSync(file, 'utf8'));
  return { passed: stats.expected, failed: stats.unexpected + stats.flaky };
}

function installChromium() {
  install('Chromium', ['chromium', 'fonts-liberation', 'fonts-dejavu-core']);
}

/** The second opinion on sheets runs on it. */
function installJava() {
  install('A Java runtime', ['default-jre-headless']);
}

function install(name, packages) {
  const apt = ['-o', 'DPkg::Lock::Timeout=300', '-y', '--no-install-recommends', 'install', ...packages];
  if (process.getuid() !== 0) {
    console.error(`${name} is missing. As root: apt-get install ${packages.join(' ')}`);
    process.exit(1);
  }
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  spawnSync('apt-get', ['-o', 'DPkg::Lock::Timeout=300', 'update'], { stdio: ['ignore', 'ignore', 'inherit'], env });
  if (!step(packages[0], 'apt-get', ['-qq', ...apt])) process.exit(1);
}
