import { execFileSync } from 'node:child_process';
import fs from 'node:fs';

export default function stopDatabase() {
  const data = globalThis.syndetonTestData;
  if (!data) return;
  execFileSync(process.execPath, ['scripts/pg.mjs', 'stop', '--data', data]);
  fs.rmSync(data, { recursive: true, force: true });
}
