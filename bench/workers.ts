// npm run workers: proofs of several sites by one worker process and by two, against what two busy loops get on this machine.
import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { zipSync } from 'fflate';
import { makeFiles } from './makeSite.ts';
import { spinCapacity } from './spinCapacity.ts';

const sites = 4;
const pages = 150;
const rounds = 6;
const port = 18_096;
const origin = `http://127.0.0.1:${port}`;

const data = fs.mkdtempSync(path.join(process.getuid?.() === 0 ? '/tmp' : os.tmpdir(), 'syndeton-bench-'));
fs.chmodSync(data, 0o755);
const pg = (command: string): string =>
  execFileSync(process.execPath, ['scripts/pg.mjs', command, '--data', data, '--fast'], { encoding: 'utf8' });
const { url } = JSON.parse(pg('start')) as { url: string };

/** Until it says that it is there. */
async function start(role: 'serve' | 'worker'): Promise<ChildProcess> {
  const one = spawn(process.execPath, ['packages/server/dist/main.js', role], {
    env: { ...process.env, DATABASE_URL: url, PORT: String(port), THREADS: '1' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await once(one.stdout!, 'data');
  return one;
}

async function stop(one: ChildProcess): Promise<void> {
  one.kill('SIGTERM');
  await once(one, 'exit');
}

async function ask<Reply>(address: string, how: RequestInit = {}): Promise<Reply> {
  const reply = await fetch(origin + address, how);
  const text = await reply.text();
  if (!reply.ok) throw new Error(`${address}: ${reply.status} ${text}`);
  return JSON.parse(text) as Reply;
}

async function bringIn(): Promise<string> {
  const body = new FormData();
  body.set(
    'archive',
    new Blob([new Uint8Array(zipSync(Object.fromEntries(makeFiles(pages, 'embedded')), { level: 1 }))]),
    'x.zip',
  );
  return (await ask<{ id: string }>('/api/sites', { method: 'POST', body })).id;
}

/** A draft and its proof, several times; milliseconds each time after the first, which reads the site. */
async function proofs(site: string): Promise<void> {
  for (let i = 0; i < rounds; i++) {
    const { base, version } = await ask<{ base: number; version: number }>(`/api/sites/${site}/draft`);
    const operations = [{ kind: 'gather-rules', sheet: `css/${i}.css` }];
    await ask(`/api/sites/${site}/draft`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ base, version, operations }),
    });
    for (;;) {
      const { status } = await ask<{ status: string }>(`/api/sites/${site}/draft/proof`);
      if (status !== 'running') break;
      await new Promise((f) => setTimeout(f, 50));
    }
  }
}

async function timed(ids: readonly string[]): Promise<number> {
  const started = performance.now();
  await Promise.all(ids.map(proofs));
  return performance.now() - started;
}

const server = await start('serve');
try {
  const first = await start('worker');
  const ids = [];
  for (let i = 0; i < sites; i++) ids.push(await bringIn());
  await stop(first);
  const times: number[] = [];
  for (const count of [1, 2]) {
    const workers = await Promise.all(Array.from({ length: count }, () => start('worker')));
    times.push(await timed(ids));
    await Promise.all(workers.map(stop));
  }
  const spin = await spinCapacity();
  const faster = times[0]! / times[1]!;
  console.log(
    `${sites} sites of ${pages} pages, ${rounds} drafts proved each: ${times.map((ms) => `${(ms / 1000).toFixed(1)} s`).join(' by one worker, ')} by two`,
  );
  console.log(
    `two workers: ${faster.toFixed(2)} times as fast; two busy loops: ${spin.toFixed(2)}; ratio ${(faster / spin).toFixed(2)} (wanted: 0.85)`,
  );
} finally {
  await stop(server);
  pg('stop');
  fs.rmSync(data, { recursive: true, force: true });
}
