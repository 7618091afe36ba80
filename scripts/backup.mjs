// npm run backup -- FILE: everything there is, in one file; also while the application runs. npm run restore -- FILE [--over] puts it back.
import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { chooseData, openDatabase, pg } from './dataFolder.mjs';
import { holderOf } from './dataLock.mjs';

const given = process.cwd();
const root = fileURLToPath(new URL('..', import.meta.url));
process.chdir(root);
const say = (text) => process.stdout.write(`${text}\n`);
const giveUp = (text) => {
  process.stderr.write(`${text}\n`);
  process.exit(2);
};

const [task, name, ...more] = process.argv.slice(2);
if (!/^(backup|restore)$/.test(task ?? '') || !name || more.some((one) => task !== 'restore' || one !== '--over'))
  giveUp('npm run backup -- FILE, or npm run restore -- FILE [--over]: one file, and nothing else but --over.');
const file = path.resolve(process.env.INIT_CWD ?? given, name);
const data = chooseData(root, say);

try {
  if (task === 'backup') backup();
  else await restore();
} catch (error) {
  giveUp(error.message);
}

/** A snapshot of one moment: PostgreSQL gives it while others write. Whole, or not there. */
function backup() {
  if (fs.existsSync(file)) giveUp(`${file} is there already. Name another file, or take it away first.`);
  const { url, leave } = openDatabase(data);
  const part = `${file}.part`;
  try {
    // what is under way between processes is worth nothing later
    const passing = ['process', 'site_task', 'import', 'import_part'].map((table) => `--exclude-table-data=${table}`);
    const what = ['--exclude-schema=graphile_worker', ...passing];
    run('pg_dump', ['--format=custom', '--no-owner', '--no-privileges', ...what, `--file=${part}`, url]);
    fs.renameSync(part, file);
    say(`${file}: ${contents(url)}, ${(fs.statSync(file).size / 1e6).toFixed(1)} MB.`);
  } finally {
    fs.rmSync(part, { force: true });
    leave();
  }
}

/** All in one transaction: what was there stays when it fails. */
async function restore() {
  if (!fs.existsSync(file)) giveUp(`There is no file ${file}.`);
  const holder = holderOf(data);
  if (!process.env.DATABASE_URL && holder !== undefined)
    giveUp(`Syndeton runs on ${data} (process ${holder}). Stop it, then restore.`);
  const { url, leave } = openDatabase(data);
  try {
    if (
      run('pg_restore', ['--list', file], `${file} is no backup of Syndeton.`).includes('TABLE DATA public site') ===
      false
    )
      giveUp(`${file} is no backup of Syndeton.`);
    if (tables(url) > 0 && !more.includes('--over'))
      giveUp(
        `There is data already (${contents(url)}). npm run restore -- ${name} --over puts the backup in its place; what is there is lost.`,
      );
    await putBack(url);
    say(`Back from ${file}: ${contents(url)}.`);
  } finally {
    leave();
  }
}

function tables(url) {
  return Number(ask(url, "SELECT count(*) FROM pg_tables WHERE schemaname = 'public' AND tablename = 'site'"));
}

function contents(url) {
  return ask(
    url,
    "SELECT (SELECT count(*) FROM site) || ' sites, ' || (SELECT count(*) FROM revision) || ' revisions'",
  );
}

function ask(url, sql) {
  return run('psql', ['-X', '-At', '-c', sql, url]).trim();
}

/** Tables and types go first, also those a later version made; then the backup runs through, never whole in memory. */
async function putBack(url) {
  const bin = pg(['bin', '--data', data]).stdout.trim();
  const emptied = `DO $$ DECLARE one record; BEGIN
    FOR one IN SELECT tablename FROM pg_tables WHERE schemaname = 'public' LOOP EXECUTE format('DROP TABLE public.%I CASCADE', one.tablename); END LOOP;
    FOR one IN SELECT typname FROM pg_type JOIN pg_namespace n ON n.oid = typnamespace WHERE nspname = 'public' AND typtype = 'e' LOOP EXECUTE format('DROP TYPE public.%I CASCADE', one.typname); END LOOP;
  END $$;\n`;
  const from = spawn(path.join(bin, 'pg_restore'), ['--no-owner', '--no-privileges', '--file=-', file]);
  const to = spawn(
    path.join(bin, 'psql'),
    ['-X', '-q', '-o', '/dev/null', '-v', 'ON_ERROR_STOP=1', '--single-transaction', url],
    { env: { ...process.env, PGOPTIONS: '-c client_min_messages=warning' } },
  );
  let problem = '';
  for (const { stderr } of [from, to]) stderr.on('data', (text) => (problem += text));
  to.stdin.on('error', () => undefined);
  to.stdin.write(emptied);
  from.stdout.pipe(to.stdin, { end: false });
  const ended = (one) => new Promise((done) => one.once('close', done));
  const restored = ended(to);
  // cut short it must not be committed
  if ((await ended(from)) === 0) to.stdin.end();
  else to.kill();
  if ((await restored) !== 0)
    throw new Error(`The backup could not be put back; what was there stays. ${problem.trim()}`);
}

function run(program, args, words) {
  const done = spawnSync(path.join(pg(['bin', '--data', data]).stdout.trim(), program), args, {
    encoding: 'utf8',
    maxBuffer: 1e8,
  });
  if (done.status !== 0)
    throw new Error(words ?? `${program} failed: ${(done.stderr || done.error?.message || '').trim()}`);
  return done.stdout;
}
