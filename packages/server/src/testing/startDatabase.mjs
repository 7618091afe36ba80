// One PostgreSQL cluster for a test run, on loopback, thrown away afterwards; and the program of the threads, made once.
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { bundle } from '../../../../scripts/bundle.mjs';
import bundleTests from '../../../../scripts/bundleTests.mjs';

export default async function startDatabase() {
  await bundleTests('server');
  process.env.SYNDETON_THREAD = await bundle(
    'packages/server/src/analysis/worker.ts',
    `.cache/thread-${process.pid}.mjs`,
  );
  if (process.env.TEST_DATABASE_URL) return;
  const data = fs.mkdtempSync(path.join(process.getuid?.() === 0 ? '/tmp' : os.tmpdir(), 'syndeton-test-'));
  fs.chmodSync(data, 0o755);
  const line = execFileSync(
    process.execPath,
    ['scripts/pg.mjs', 'start', '--data', data, '--db', 'syndeton_test', '--fast'],
    { encoding: 'utf8' },
  );
  process.env.TEST_DATABASE_URL = JSON.parse(line).url;
  globalThis.syndetonTestData = data;
}
