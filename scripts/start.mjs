// npm start: installs what is missing, builds what changed, starts PostgreSQL and the server, stops both on Ctrl-C.
import { spawn, spawnSync } from 'node:child_process';
import crypto from 'node:crypto';
import fs from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { chooseData, databaseArguments } from './dataFolder.mjs';
import { leaveFolder, takeFolder } from './dataLock.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
process.chdir(root);
const say = (text) => process.stdout.write(`${text}\n`);
const giveUp = (text) => {
  process.stderr.write(`${text}\n`);
  process.exit(2);
};

const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19))
  giveUp(
    `Node ${process.versions.node} is too old. Syndeton needs Node 20.19 or later; Debian's and nodejs.org's packages have it.`,
  );

const port = Number(process.env.PORT ?? 4870);
const host = process.env.HOST ?? '127.0.0.1';
if (!Number.isInteger(port) || port < 1 || port > 65535)
  giveUp(`PORT=${process.env.PORT} is no port. Numbers from 1 to 65535 are allowed.`);
await new Promise((free) => {
  const probe = net.createServer();
  probe.once('error', (error) =>
    giveUp(
      `Port ${port} on ${host} cannot be used (${error.code}). Another program has it; choose another: PORT=${port + 1} npm start`,
    ),
  );
  probe.listen(port, host, () => probe.close(free));
});

const data = chooseData(root, say);
try {
  fs.mkdirSync(data, { recursive: true });
  const holder = takeFolder(data);
  if (holder !== undefined)
    giveUp(
      `Syndeton runs on ${data} already (process ${holder}). Stop that one first, or name another folder: SYNDETON_DATA=… npm start`,
    );
} catch (error) {
  giveUp(`The data folder ${data} cannot be used: ${wordsFor(error)}. Name another one: SYNDETON_DATA=… npm start`);
}
process.on('exit', () => leaveFolder(data));
installPackages();
buildWhatChanged();
const databaseUrl = process.env.DATABASE_URL ?? startDatabase();
const server = spawn(process.execPath, ['packages/server/dist/main.js'], {
  stdio: ['inherit', 'inherit', 'inherit', 'ipc'], // by the channel it learns when we are killed
  env: {
    ...process.env,
    DATABASE_URL: databaseUrl,
    PORT: String(port),
    HOST: host,
    ...(process.env.DATABASE_URL ? {} : { SYNDETON_STARTED_ON: data }), // whose database is ours to stop
  },
  detached: true, // Ctrl-C reaches only us: we stop the server, then the database
});
let stopping = false;
// a database that died is started again where it was; the server finds it there by itself
const watching = process.env.DATABASE_URL ? undefined : setInterval(() => void watchDatabase(), 2000);
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.on(signal, () => {
    if (!stopping) say('\nStopping.');
    stopping = true;
    server.kill('SIGTERM');
  });
server.on('exit', (code) => {
  clearInterval(watching);
  if (!process.env.DATABASE_URL)
    spawnSync(process.execPath, ['scripts/pg.mjs', 'stop', '--data', path.join(data, 'postgres')], {
      stdio: 'inherit',
    });
  process.exit(stopping ? 0 : (code ?? 1));
});

function installPackages() {
  const lock = fs.readFileSync('package-lock.json');
  const stamp = path.join('node_modules', '.syndeton-lock');
  const wanted = crypto.createHash('sha256').update(lock).digest('hex');
  if (
    fs.existsSync('node_modules/.package-lock.json') &&
    (!fs.existsSync(stamp) || fs.readFileSync(stamp, 'utf8') === wanted)
  ) {
    if (!fs.existsSync(stamp)) fs.writeFileSync(stamp, wanted);
    return;
  }
  say('Installing packages (npm ci), once …');
  if (spawnSync('npm', ['ci', '--no-audit', '--no-fund'], { stdio: ['ignore', 'ignore', 'inherit'] }).status !== 0)
    giveUp('npm ci failed. It needs the npm registry; see the lines above.');
  fs.writeFileSync(stamp, wanted);
}

function buildWhatChanged() {
  const hash = crypto.createHash('sha256');
  for (const file of [...sourceFiles('packages'), 'package-lock.json', 'tsconfig.base.json'])
    hash.update(file).update(fs.readFileSync(file));
  const wanted = hash.digest('hex');
  const stamp = path.join('node_modules', '.syndeton-build');
  const built = ['packages/server/dist/main.js', 'packages/web/dist/index.html', 'packages/cli/dist/main.js'].every(
    (file) => fs.existsSync(file),
  );
  if (built && fs.existsSync(stamp) && fs.readFileSync(stamp, 'utf8') === wanted) return;
  say('Building …');
  if (spawnSync('npm', ['run', '--silent', 'build'], { stdio: ['ignore', 'ignore', 'inherit'] }).status !== 0)
    giveUp('The build failed; see the lines above.');
  fs.writeFileSync(stamp, wanted);
}

function sourceFiles(folder) {
  return fs
    .readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => path.join(entry.parentPath, entry.name))
    .filter((file) => !/node_modules|[\\/]dist[\\/]|\.test\.tsx?$|tsbuildinfo/.test(file))
    .sort();
}

function startDatabase() {
  const run = spawnSync(process.execPath, ['scripts/pg.mjs', ...databaseArguments(data)], {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  if (run.status !== 0)
    giveUp(`PostgreSQL did not start. ${lastLine(run.stderr)}\nOr set DATABASE_URL to a PostgreSQL server you have.`);
  return JSON.parse(run.stdout).url;
}

let restarting = false;
let trouble = '';
async function watchDatabase() {
  if (stopping || restarting || (await answers(new URL(databaseUrl).port))) return;
  restarting = true;
  if (trouble === '') say('PostgreSQL does not answer. Starting it again …');
  const again = spawn(process.execPath, ['scripts/pg.mjs', ...databaseArguments(data)], {
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  let text = '';
  again.stderr.on('data', (part) => (text += part));
  const code = await new Promise((done) => again.once('close', done));
  const said = code === 0 ? '' : lastLine(text);
  // it is tried again every other second, and said once
  if (said !== '' && said !== trouble) say(`It cannot be started yet. ${said}`);
  trouble = said;
  restarting = false;
}

function answers(port) {
  return new Promise((done) => {
    const socket = net.connect(Number(port), '127.0.0.1');
    socket.once('connect', () => done(true) || socket.destroy());
    socket.once('error', () => done(false));
  });
}

const full = 'the disk is full; make room on it';
function wordsFor(error) {
  if (error.code === 'ENOSPC') return full;
  if (error.code === 'EACCES' || error.code === 'EROFS') return 'nothing may be written there';
  return error.code === 'ENOTDIR' || error.code === 'EEXIST' ? 'it is a file, or lies in one' : error.message;
}

function lastLine(text) {
  if (/No space left on device|ENOSPC/.test(text)) return `In ${data} ${full}.`;

  return (text.match(/Error: (.*)/)?.[1] ?? text).trim();
}
