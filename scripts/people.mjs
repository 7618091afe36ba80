// npm run people -- …: who may sign in; also while the application runs.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { chooseData, openDatabase } from './dataFolder.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
process.chdir(root);
const command = 'packages/server/dist/peopleCommand.js';
if (!fs.existsSync(command)) {
  process.stderr.write('Syndeton is not built yet. Run npm start once, then this again.\n');
  process.exit(2);
}
const { url, leave } = openDatabase(chooseData(root, (text) => process.stderr.write(`${text}\n`)));
try {
  const env = { ...process.env, DATABASE_URL: url };
  process.exitCode =
    spawnSync(process.execPath, [command, ...process.argv.slice(2)], { stdio: 'inherit', env }).status ?? 1;
} finally {
  leave();
}
