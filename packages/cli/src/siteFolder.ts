import fs from 'node:fs/promises';
import path from 'node:path';
import { fileKindOf, makeSite, parseSitePath, type Site } from '@syndeton/core';

/** Bad input from the person at the command line: exit 2, with what is allowed. */
export class UsageProblem extends Error {}

const limits = { files: 10_000, bytes: 200e6, textBytes: 20e6 };

/** Endings of files, as written at the command line: `php,asp`. */
export function runPages(given: string | undefined): ReadonlySet<string> | undefined {
  if (given === undefined) return undefined;
  const endings = given.split(',').map((one) => one.trim().replace(/^\./, '').toLowerCase());
  const wrong = endings.find((one) => !/^[a-z0-9]{1,10}$/.test(one) || fileKindOf(`x.${one}`) !== 'other');
  if (wrong !== undefined)
    throw new UsageProblem(
      `--run-pages ${given}: "${wrong}" cannot be an ending of such pages. php,asp,jsp is one way to write it.`,
    );
  return new Set(endings);
}

/**
 * All files below a folder as a site, links to files as the files they lead to; version-control folders are left out. `pageTypes`:
 * further endings of pages.
 */
export async function readSiteFolder(folder: string, pageTypes?: ReadonlySet<string>): Promise<Site> {
  const root = await fs.stat(folder).catch(() => undefined);
  if (!root) throw new UsageProblem(`There is no folder ${folder}. Name a folder that holds the pages.`);
  if (!root.isDirectory()) throw new UsageProblem(`${folder} is a file. Name the folder that holds the pages.`);
  const files: [string, Uint8Array][] = [];
  let bytes = 0;
  for (const entry of await fs.readdir(folder, { recursive: true, withFileTypes: true })) {
    const full = path.join(entry.parentPath, entry.name);
    if (!entry.isFile() && !(entry.isSymbolicLink() && (await leadsToFile(full, folder)))) continue;
    const relative = path.relative(folder, full).split(path.sep).join('/');
    if (/(^|\/)\.(git|svn|hg)\//.test(relative)) continue;
    const sitePath = parseSitePath(relative);
    if (!sitePath.ok) continue;
    const content = await fs.readFile(full);
    bytes += content.length;
    if (fileKindOf(sitePath.value, pageTypes) !== 'other' && content.length > limits.textBytes)
      throw new UsageProblem(`${relative} is larger than 20 MB, the most a page or sheet may have.`);
    files.push([sitePath.value, content]);
    if (files.length > limits.files)
      throw new UsageProblem(
        `${folder} holds more than ${limits.files.toLocaleString('en')} files, the most a site may have.`,
      );
    if (bytes > limits.bytes) throw new UsageProblem(`${folder} holds more than 200 MB, the most a site may have.`);
  }
  return makeSite(files, pageTypes);
}

/** Writes a whole site below a folder that must be empty or absent, first beside it, then in one rename: all or nothing. */
export async function writeSiteFolder(site: Site, folder: string, links: readonly FolderLink[] = []): Promise<void> {
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
    for (const link of links) {
      const full = path.join(draft, ...link.path.split('/'));
      await fs.mkdir(path.dirname(full), { recursive: true });
      await fs.symlink(link.target, full);
    }
    await fs.rm(target, { recursive: true, force: true });
    await fs.rename(draft, target);
    await fs.chmod(target, 0o755);
  } catch (error) {
    await fs.rm(draft, { recursive: true, force: true });
    throw error;
  }
}

/** A link that leads to a folder, or nowhere: not followed, and written as it was. */
export interface FolderLink {
  readonly path: string;
  readonly target: string;
}

/** The links below a folder that are not read as files. Those that are absolute, or lead out of it, are left out. */
export async function linksOfFolder(folder: string): Promise<readonly FolderLink[]> {
  const out: FolderLink[] = [];
  for (const entry of await fs.readdir(folder, { recursive: true, withFileTypes: true })) {
    const full = path.join(entry.parentPath, entry.name);
    if (!entry.isSymbolicLink() || (await leadsToFile(full, folder))) continue;
    const relative = parseSitePath(path.relative(folder, full).split(path.sep).join('/'));
    const target = await fs.readlink(full);
    if (relative.ok && !path.isAbsolute(target) && isInside(folder, path.resolve(path.dirname(full), target)))
      out.push({ path: relative.value, target });
  }
  return out;
}

const isInside = (folder: string, full: string): boolean => !path.relative(folder, full).startsWith('..');

/** Links that lead out of the folder are none of the site's. */
async function leadsToFile(link: string, folder: string): Promise<boolean> {
  const real = await fs.realpath(link).catch(() => undefined);
  if (real === undefined || !isInside(await fs.realpath(folder), real)) return false;
  return (await fs.stat(real)).isFile();
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
