import { spawn } from 'node:child_process';
import { once } from 'node:events';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import bundleTests from '../../../../scripts/bundleTests.mjs';

export default async function startChromium() {
  await bundleTests('core');
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'syndeton-chromium-'));
  const socket = path.join(folder, 'socket');
  const host = spawn(process.execPath, [path.join(import.meta.dirname, 'chromiumHost.mjs'), socket], {
    stdio: ['pipe', 'pipe', 'inherit'],
  });
  await once(host.stdout, 'data');
  process.env.CHROMIUM_SOCKET = socket;
  globalThis.syndetonChromium = { host, folder };
}
