import { execFileSync } from 'node:child_process';
import fs from 'node:fs';

export default function stopDatabase() {
  fs.rmSync(process.env.SYNDETON_THREAD, { force: true });
  const data = globalThis.syndetonTestData;
  if (!data) return;
  execFileSync(process.execPath, ['scripts/pg.mjs', 'stop', '--data', data]);
  fs.rmSync(data, { recursive: true, force: true });
}
