import fs from 'node:fs/promises';
import path from 'node:path';
import type { ReadArchive } from '../../archive/readArchive.ts';

export type DemoReader = () => Promise<ReadArchive>;

/** The demo site as it lies in the repository. */
export function makeDemoReader(folder: string): DemoReader {
  return async () => {
    const files = new Map<string, Buffer>();
    for (const entry of await fs.readdir(folder, { recursive: true, withFileTypes: true })) {
      if (!entry.isFile()) continue;
      const full = path.join(entry.parentPath, entry.name);
      files.set(path.relative(folder, full).split(path.sep).join('/'), await fs.readFile(full));
    }
    return { prefix: '', files, leftOut: [] };
  };
}
