// npm run load [minutes]: people at work at once on the built server, against one person alone; what each waits for, and its memory.
import fs from 'node:fs';
import path from 'node:path';
import { zipSync } from 'fflate';
import { bringIn, memoryOf, origin, startServer } from './builtServer.ts';
import { makeFiles } from './makeSite.ts';

const minutes = Number(process.argv[2] ?? 1);
/** So many work on a copy of the demo each, and so many on a large site each. */
const people = 20;
const large = 3;
const largePages = 800;

const waits: Record<string, number[]> = {};
const wait = (what: string, ms: number): void => void (waits[what] ??= []).push(ms);
const failed: string[] = [];

async function ask(what: string, address: string, how: RequestInit = {}): Promise<unknown> {
  const started = performance.now();
  const reply = await fetch(`${origin}${address}`, how);
  const text = await reply.text();
  wait(what, performance.now() - started);
  if (!reply.ok) failed.push(`${what}: ${reply.status} ${text.slice(0, 200)}`);
  return reply.ok && text !== '' ? JSON.parse(text) : undefined;
}

const json = (method: string, body: object): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

interface Draft {
  readonly base: number;
  readonly version: number;
}

/** Looks, lines something up, waits for its proof, and drops it again, with a moment to think. */
async function work(site: string, until: number, size = ''): Promise<void> {
  const at = `/api/sites/${site}`;
  for (let i = 0; Date.now() < until; i++) {
    await ask(`survey${size}`, `${at}/revisions/1/survey`);
    const { base, version } = (await ask(`read draft${size}`, `${at}/draft`)) as Draft;
    const operations = [{ kind: 'gather-rules', sheet: `css/gathered-${i}.css` }];
    const put = (await ask(`draft${size}`, `${at}/draft`, json('PUT', { base, version, operations }))) as
      | Draft
      | undefined;
    if (!put) return;
    const started = performance.now();
    for (;;) {
      const proof = (await ask(`ask proof${size}`, `${at}/draft/proof`)) as { status: string } | undefined;
      if (proof?.status !== 'running') break;
      await new Promise((f) => setTimeout(f, 100));
    }
    wait(`proof${size}`, performance.now() - started);
    await ask(`drop draft${size}`, `${at}/draft?version=${put.version}`, { method: 'DELETE' });
    await new Promise((f) => setTimeout(f, 1000 * Math.random()));
  }
}

const p95 = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length * 0.95)] ?? 0;
const settled = (): Record<string, number> => {
  const found = Object.fromEntries(Object.entries(waits).map(([what, list]) => [what, p95(list)]));
  for (const what of Object.keys(waits)) delete waits[what];
  return found;
};

const demo = (): Uint8Array => {
  const folder = path.resolve('demo');
  const files = fs.readdirSync(folder, { recursive: true, withFileTypes: true }).filter((one) => one.isFile());
  return zipSync(
    Object.fromEntries(
      files.map((one) => [
        path.relative(folder, path.join(one.parentPath, one.name)),
        new Uint8Array(fs.readFileSync(path.join(one.parentPath, one.name))),
      ]),
    ),
  );
};

const server = await startServer();
try {
  const demos = [];
  for (let i = 0; i < people; i++) demos.push(await bringIn(demo()));
  const larges = [];
  for (let i = 0; i < large; i++)
    larges.push(await bringIn(zipSync(Object.fromEntries(makeFiles(largePages, 'embedded')), { level: 1 })));
  await work(demos[0]!, Date.now() + 20_000);
  const alone = settled();
  const memory: number[][] = [[], []];
  let phase = 0;
  const watching = setInterval(() => memory[phase]!.push(memoryOf(server)), 1000);
  const until = Date.now() + minutes * 60_000;
  const busy = work(demos[0]!, until);
  await Promise.all([busy, ...demos.slice(1).map((site) => work(site, until))]);
  const many = settled();
  phase = 1;
  const later = Date.now() + minutes * 60_000;
  await Promise.all([...demos.map((site) => work(site, later)), ...larges.map((site) => work(site, later, ', large'))]);
  const withLarge = settled();
  clearInterval(watching);
  console.log(
    `p95 of what people wait for, ms: alone, ${people} people on the demo, with ${large} more on ${largePages} pages`,
  );
  for (const what of Object.keys(withLarge))
    console.log(
      `  ${what.padEnd(12)} ${[alone, many, withLarge].map((one) => (one[what] ?? 0).toFixed(0).padStart(8)).join('')}`,
    );
  for (const [i, sizes] of memory.entries()) {
    const third = Math.floor(sizes.length / 3);
    console.log(
      `memory ${i === 0 ? 'with the many' : 'with the large sites'}, MB: most in the first third ${Math.max(...sizes.slice(0, third)).toFixed(0)}, in the last ${Math.max(...sizes.slice(-third)).toFixed(0)}`,
    );
  }
  console.log(
    failed.length === 0
      ? 'no request failed'
      : `${failed.length} requests failed: ${[...new Set(failed)].slice(0, 5).join('; ')}`,
  );
} finally {
  server.kill('SIGTERM');
  await new Promise((done) => server.once('exit', done));
}
