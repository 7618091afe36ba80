import { spawn, type ChildProcess } from 'node:child_process';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';

const port = 18_098;
export const origin = `http://127.0.0.1:${port}`;

/** The built server with a database of its own. */
export async function startServer(): Promise<ChildProcess> {
  const script = fileURLToPath(new URL('../e2e/server.mjs', import.meta.url));
  const env = { ...process.env, SYNDETON_NO_DEMO: '1' };
  const server = spawn(process.execPath, [script, String(port)], { stdio: 'ignore', env });
  for (let i = 0; i < 300; i++) {
    await new Promise((f) => setTimeout(f, 200));
    const reply = await fetch(`${origin}/api/health`).catch(() => undefined);
    if (reply?.ok) return server;
  }
  throw new Error('the server did not start; run npm run build first');
}

export async function bringIn(zip: Uint8Array): Promise<string> {
  const body = new FormData();
  body.set('name', 'bench');
  body.set('archive', new Blob([new Uint8Array(zip)]), 'bench.zip');
  const started = (await (await fetch(`${origin}/api/imports`, { method: 'POST', body })).json()) as { id: string };
  for (;;) {
    await new Promise((f) => setTimeout(f, 100));
    const reply = (await (await fetch(`${origin}/api/imports/${started.id}`)).json()) as {
      status: string;
      siteId?: string;
      detail?: string;
    };
    if (reply.status === 'done') return reply.siteId!;
    if (reply.status === 'failed') throw new Error(reply.detail);
  }
}

/** Linux keeps the most memory a process ever had; the server is the child of the script that starts it. */
export function peakOf(script: ChildProcess): number {
  const children = fs.readFileSync(`/proc/${script.pid}/task/${script.pid}/children`, 'utf8').trim().split(' ');
  const peaks = children.map((pid) =>
    Number(/VmHWM:\s*(\d+)/.exec(fs.readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0),
  );
  return Math.max(...peaks) / 1000;
}

/** Megabytes the server process has now, its worker threads included. */
export function memoryOf(script: ChildProcess): number {
  const children = fs.readFileSync(`/proc/${script.pid}/task/${script.pid}/children`, 'utf8').trim().split(' ');
  const sizes = children.map((pid) =>
    Number(/VmRSS:\s*(\d+)/.exec(fs.readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0),
  );
  return Math.max(...sizes) / 1000;
}
