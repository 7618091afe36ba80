// One program at a time works on a data folder: a file with its process says so.
import fs from 'node:fs';
import path from 'node:path';

/**
 * When a process began, in clock ticks since the machine did: a number given to another process later tells it apart. One that has
 * ended and waits to be seen off is gone.
 */
function startedAt(pid) {
  try {
    const text = fs.readFileSync(`/proc/${pid}/stat`, 'utf8');
    const fields = text.slice(text.lastIndexOf(')') + 2).split(' ');
    return /^[ZX]$/.test(fields[0]) ? undefined : fields[19];
  } catch {
    return undefined;
  }
}

/** The process that holds the folder; undefined when none does, or the one that did is gone. */
export function holderOf(folder) {
  try {
    const { pid, started } = JSON.parse(fs.readFileSync(path.join(folder, 'lock'), 'utf8'));
    return Number.isInteger(pid) && startedAt(pid) === started ? pid : undefined;
  } catch {
    return undefined;
  }
}

/** Takes the folder for this process. Returns the process that has it when it is taken, else undefined. */
export function takeFolder(folder) {
  const file = path.join(folder, 'lock');
  const text = JSON.stringify({ pid: process.pid, started: startedAt(process.pid) });
  for (let tries = 0; tries < 5; tries++) {
    // written whole beside it, then linked: whoever links first has it
    const own = `${file}.${process.pid}`;
    fs.writeFileSync(own, text);
    try {
      fs.linkSync(own, file);
      return undefined;
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
      const holder = holderOf(folder);
      if (holder !== undefined) return holder;
      // left by a process that was killed
      fs.rmSync(file, { force: true });
    } finally {
      fs.rmSync(own, { force: true });
    }
  }
  return holderOf(folder) ?? 0;
}

export function leaveFolder(folder) {
  if (holderOf(folder) === process.pid) fs.rmSync(path.join(folder, 'lock'), { force: true });
}
