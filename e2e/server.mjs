// node e2e/server.mjs PORT [people…]: the built server with a database of its own, for the time of a test run; with people, accounts are
// on, and each may sign in with the password PASSWORD, the first as an administrator.
import { execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

process.chdir(fileURLToPath(new URL('..', import.meta.url)));
const data = fs.mkdtempSync(path.join(process.getuid?.() === 0 ? '/tmp' : os.tmpdir(), 'syndeton-e2e-'));
fs.chmodSync(data, 0o755);
const { url } = JSON.parse(
  execFileSync(process.execPath, ['scripts/pg.mjs', 'start', '--data', data, '--fast'], { encoding: 'utf8' }),
);
const [port, ...people] = process.argv.slice(2);
people.forEach((name, i) =>
  execFileSync(
    process.execPath,
    ['packages/server/dist/peopleCommand.js', 'add', name, ...(i === 0 ? ['--administrator'] : [])],
    { input: process.env.PASSWORD, env: { ...process.env, DATABASE_URL: url }, stdio: ['pipe', 'ignore', 'inherit'] },
  ),
);
const server = spawn(process.execPath, ['packages/server/dist/main.js'], {
  stdio: 'inherit',
  env: { ...process.env, DATABASE_URL: url, PORT: port, ...(people.length > 0 ? { ACCOUNTS: 'on' } : {}) },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill('SIGTERM'));
server.on('exit', (code) => {
  execFileSync(process.execPath, ['scripts/pg.mjs', 'stop', '--data', data]);
  fs.rmSync(data, { recursive: true, force: true });
  process.exit(code ?? 0);
});
