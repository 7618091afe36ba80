import fs from 'node:fs/promises';
import path from 'node:path';
import { fileKindOf, makeSite, parseSitePath, type Site } from '@syndeton/core';

/** Bad input from the person at the command line: exit 2, with what is allowed. */
export class UsageProblem extends Error {}

const limits = { files: 10_000, bytes: 200e6, textBytes: 20e6 };

/** All files below a folder as a site. Links and version-control folders are left out. */
export async function readSiteFolder(folder: string): Promise<Site> {
  const root = await fs.stat(folder).catch(() => undefined);
  if (!root) throw new UsageProblem(`There is no folder ${folder}. Name a folder that holds the pages.`);
  if (!root.isDirectory()) throw new UsageProblem(`${folder} is a file. Name the folder that holds the pages.`);
  const files: [string, Uint8Array][] = [];
  let bytes = 0;
  for (const entry of await fs.readdir(folder, { recursive: true, withFileTypes: true })) {
    if (!entry.isFile()) continue;
    const full = path.join(entry.parentPath, entry.name);
    const relative = path.relative(folder, full).split(path.sep).join('/');
    if (/(^|\/)\.(git|svn|hg)\//.test(relative)) continue;
    const sitePath = parseSitePath(relative);
    if (!sitePath.ok) continue;
    const content = await fs.readFile(full);
    bytes += content.length;
    if (fileKindOf(sitePath.value) !== 'other' && content.length > limits.textBytes)
      throw new UsageProblem(`${relative} is larger than 20 MB, the most a page or sheet may have.`);
    files.push([sitePath.value, content]);
    if (files.length > limits.files)
      throw new UsageProblem(
        `${folder} holds more than ${limits.files.toLocaleString('en')} files, the most a site may have.`,
      );
    if (bytes > limits.bytes) throw new UsageProblem(`${folder} holds more than 200 MB, the most a site may have.`);
  }
  return makeSite(files);
}

/** Writes a whole site below a folder that must be empty or absent, first beside it, then in one rename: all or nothing. */
export async function writeSiteFolder(site: Site, folder: string): Promise<void> {
  await checkTarget(folder);
  const target = path.resolve(folder);
  await fs.mkdir(path.dirname(target), { recursive: true });
  const draft = await fs.mkdtemp(`${target}.writing-`);
  try {
    for (const file of site.files.values()) {
      const full = path.join(draft, ...file.path.split('/'));
      await fs.mkdir(path.dirname(full), { recursive: true });
      await fs.writeFile(full, file.bytes);
    }
    await fs.rm(target, { recursive: true, force: true });
    await fs.rename(draft, target);
    await fs.chmod(target, 0o755);
  } catch (error) {
    await fs.rm(draft, { recursive: true, force: true });
    throw error;
  }
}

/** Refuses a target that holds something, before any work is done. */
export async function checkTarget(folder: string): Promise<void> {
  const there = await fs.readdir(folder).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return [];
    if (error.code === 'ENOTDIR')
      throw new UsageProblem(`${folder} is a file. Name an empty or new folder to write to.`);
    throw error;
  });
  if (there.length > 0) throw new UsageProblem(`${folder} is not empty. Name an empty or new folder to write to.`);
}
