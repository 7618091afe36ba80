// node scripts/leftBehind.mjs FOLDER: stops the database of a data folder whose start command was killed, unless another start has it.
import fs from 'node:fs';
import path from 'node:path';
import { pg } from './dataFolder.mjs';
import { holderOf } from './dataLock.mjs';

const [, , data] = process.argv;
if (data && holderOf(data) === undefined) {
  fs.rmSync(path.join(data, 'lock'), { force: true });
  pg(['stop', '--data', path.join(data, 'postgres')]);
}
