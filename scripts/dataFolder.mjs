// Where an installation keeps its data, and how its database is reached: for the start, the backup and the restore alike.
import { spawnSync } from 'node:child_process';
import crypto from 'node:crypto';
import path from 'node:path';

/** `.data` beside the program; where the database's own user cannot reach that (a closed home of root), a folder of the machine. */
export function chooseData(root, say) {
  if (process.env.SYNDETON_DATA) return path.resolve(process.env.SYNDETON_DATA);
  const usual = path.resolve(root, '.data');
  if (process.env.DATABASE_URL || process.getuid?.() !== 0) return usual;
  if (pg(['reach', '--data', usual]).status === 0) return usual;
  const name = crypto.createHash('sha256').update(root).digest('hex').slice(0, 8);
  const instead = `/var/lib/syndeton/${name}`;
  say(`The database's own user cannot reach ${usual}; data is kept in ${instead}.`);
  return instead;
}

export const databaseArguments = (data) => [
  'start',
  '--data',
  path.join(data, 'postgres'),
  '--db',
  'syndeton',
  '--role',
  'syndeton',
];

export const pg = (args) =>
  spawnSync(process.execPath, ['scripts/pg.mjs', ...args], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });

/** The database of the data folder, started where it does not run; `leave` stops what was started here. */
export function openDatabase(data) {
  if (process.env.DATABASE_URL) return { url: process.env.DATABASE_URL, leave: () => undefined };
  const ran = pg(['status', '--data', path.join(data, 'postgres')]).stdout.trim() === 'running';
  const run = pg(databaseArguments(data));
  if (run.status !== 0)
    throw new Error(`PostgreSQL did not start. ${run.stderr.match(/Error: (.*)/)?.[1] ?? run.stderr}`);
  const leave = () => void (ran || pg(['stop', '--data', path.join(data, 'postgres')]));
  return { url: JSON.parse(run.stdout).url, leave };
}
