import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';

const prefix = 'syndeton-uploads-';
let folder: string | undefined;

/** Where uploads of this process lie until they are read; gone when it ends. */
export function uploadFolder(): string {
  if (folder === undefined) {
    forgetEndedProcesses();
    folder = fs.mkdtempSync(path.join(os.tmpdir(), `${prefix}${process.pid}-`));
    process.once('exit', () => fs.rmSync(folder!, { recursive: true, force: true }));
  }
  return folder;
}

/** What a process left that was ended before it could tidy up. */
function forgetEndedProcesses(): void {
  for (const name of fs.readdirSync(os.tmpdir())) {
    const pid = Number(new RegExp(`^${prefix}(\\d+)-`).exec(name)?.[1]);
    if (pid > 0 && !isRunning(pid)) fs.rmSync(path.join(os.tmpdir(), name), { recursive: true, force: true });
  }
}

function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
