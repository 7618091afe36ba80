import { once } from 'node:events';
import fs from 'node:fs';

export default async function stopChromium() {
  const { host, folder } = globalThis.syndetonChromium;
  host.stdin.end();
  await once(host, 'exit');
  fs.rmSync(folder, { recursive: true, force: true });
}
