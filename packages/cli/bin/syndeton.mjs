#!/usr/bin/env node
// The built program if it is there, else the sources through tsx.
import fs from 'node:fs';
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { setFlagsFromString } from 'node:v8';

// as the server has it, in startThread.ts
setFlagsFromString('--no-allocation-site-pretenuring');

const built = new URL('../dist/main.js', import.meta.url);
if (fs.existsSync(built)) {
  const { main } = await import(built.href);
  process.exitCode = await main(
    process.argv.slice(2),
    (text) => process.stdout.write(`${text}\n`),
    (text) => process.stderr.write(`${text}\n`),
  );
} else if (process.env.SYNDETON_FROM_SOURCE) {
  const { main } = await import('../src/main.ts');
  process.exitCode = await main(
    process.argv.slice(2),
    (text) => process.stdout.write(`${text}\n`),
    (text) => process.stderr.write(`${text}\n`),
  );
} else {
  const self = fileURLToPath(import.meta.url);
  const tsx = import.meta.resolve('tsx');
  const run = spawnSync(
    process.execPath,
    ['--import', tsx, '--conditions=@syndeton/source', self, ...process.argv.slice(2)],
    {
      stdio: 'inherit',
      env: { ...process.env, SYNDETON_FROM_SOURCE: '1' },
    },
  );
  process.exitCode = run.status ?? 1;
}
