// npm run full-disk: the data folder on a disk of 250 MB that comes to be full. What does not fit is refused in words, what was saved
// stays, and work goes on once there is room. Needs a system that lets this user mount a tmpfs; says so and ends well where it does not.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { randomBytes } from 'node:crypto';
import { Installation } from './installation.ts';
import { siteForm } from './siteForm.ts';

const faults: string[] = [];
const installation = new Installation();
const disk = installation.data;
fs.mkdirSync(disk, { recursive: true });
if (spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=250m,mode=755', 'tmpfs', disk]).status !== 0) {
  console.log('not tried: nothing can be mounted here');
  fs.rmSync(path.dirname(disk), { recursive: true });
  process.exit(0);
}
const expect = (what: string, isSo: boolean): void => void (isSo || faults.push(what));
const page = '<!DOCTYPE html><title>A page</title><p>Text\n';

async function bringIn(
  megabytes: number,
): Promise<{ readonly status: number; readonly body: { id?: string; code?: string; detail?: string } }> {
  const files = { 'index.html': Buffer.from(page), 'picture.jpg': randomBytes(megabytes * 1e6) };
  const reply = await fetch(`${installation.origin}/api/sites`, {
    method: 'POST',
    body: siteForm(files, { name: 'Full' }),
  });
  return { status: reply.status, body: (await reply.json()) as { id?: string; code?: string; detail?: string } };
}

try {
  await installation.start();
  const first = await bringIn(1);
  expect('a site cannot be brought in', first.status === 201);
  // somebody else's files, which can be taken away again
  fs.writeFileSync(path.join(disk, 'others'), Buffer.alloc(80e6));
  let refused = await bringIn(20);
  for (let i = 0; i < 20 && refused.status === 201; i++) refused = await bringIn(20);
  console.log(`refused with ${refused.status} ${refused.body.code}: ${refused.body.detail}`);
  expect(
    `a full disk answers ${refused.status} ${refused.body.code}`,
    refused.status === 507 && refused.body.code === 'disk-full',
  );
  // nothing at all is free any more
  fs.writeFileSync(path.join(disk, 'filler'), '');
  try {
    for (;;) fs.appendFileSync(path.join(disk, 'filler'), Buffer.alloc(1e5));
  } catch {
    // full
  }
  const id = first.body.id!;
  const operations = [{ kind: 'new-sheet', sheet: 'css/new.css', text: 'p { color: teal }\n' }];
  const put = (): Promise<Response> =>
    fetch(`${installation.origin}/api/sites/${id}/draft`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ base: 1, version: 0, operations }),
    });
  const full = await put();
  console.log(`a draft on the full disk: ${full.status} ${(await full.text()).slice(0, 200)}`);
  expect(`a draft on the full disk answers ${full.status}`, [200, 503, 507].includes(full.status));
  const again = await fetch(`${installation.origin}/api/sites/${id}`);
  expect(`a saved site on the full disk answers ${again.status}`, [200, 503].includes(again.status));
  for (const name of ['filler', 'others']) fs.rmSync(path.join(disk, name));
  await installation.answersAgain();
  const archive = await fetch(`${installation.origin}/api/sites/${id}/revisions/1/archive`);
  expect(
    'what was saved is not handed off once there is room',
    archive.status === 200 && (await archive.arrayBuffer()).byteLength > 1e6,
  );
} catch (error) {
  faults.push(String((error as Error).stack ?? error));
}
faults.push(...(await installation.stop(() => spawnSync('umount', [disk]))));
for (const fault of faults) console.error(`FAULT ${fault}`);
if (faults.length > 0) console.error(installation.lines());
process.exitCode = faults.length > 0 ? 1 : 0;
