import { describePathProblem, folderOf, parseSitePath } from '@syndeton/core';
import type { ChangedSiteReply, ReadAsPagesRequest, RemoveFilesRequest, TakeInRequest } from '@syndeton/contract';
import type { OldNameEncoding } from '../../archive/entryNames.ts';
import { readArchive } from '../../archive/readArchive.ts';
import type { Turns } from '../../archive/turns.ts';
import { Refusal } from '../../http/refusal.ts';
import type { RevisionStore } from '../../stores/revisionStore.ts';
import { recordOf } from '../sites/index.ts';
import type { FileChanges } from './fileChanges.ts';
import { innerFolder } from './innerFolder.ts';

/** Files put into a site later, replaced or taken out: each time a new revision. */
export interface FileService {
  /** `folder`: where the archive's files go; the site's top folder when it is empty or absent. */
  add(
    siteId: string,
    base: number,
    archive: string,
    how: { readonly folder?: string; readonly names?: OldNameEncoding },
  ): Promise<ChangedSiteReply>;
  remove(siteId: string, body: RemoveFilesRequest): Promise<ChangedSiteReply>;
  takeIn(siteId: string, body: TakeInRequest): Promise<ChangedSiteReply>;
  /** No file changes: those with these endings are read as pages from the next revision on. */
  readAsPages(siteId: string, body: ReadAsPagesRequest): Promise<ChangedSiteReply>;
}

export function makeFileService(
  { open, write }: FileChanges,
  { revisions, turns }: { readonly revisions: RevisionStore; readonly turns: Turns },
): FileService {
  return {
    async add(siteId, base, archive, { folder = '', names }) {
      const opened = await open(siteId, base);
      const { site, manifest } = opened;
      const place = folder.trim() === '' ? '' : placeFor(folder);
      return turns.run(async () => {
        const read = await readArchive(archive, { names });
        const inner = innerFolder(read, site, (path) => manifest[place + path] !== undefined);
        const files = new Map([...read.files].map(([path, bytes]) => [place + inner + path, bytes]));
        const count = files.size === 1 ? [...files.keys()][0]! : `${files.size} files`;
        return write(opened, {
          files,
          removed: [],
          message: `Put in ${count}`,
          leftOut: read.leftOut.map(recordOf),
          kept: read.leftOut.flatMap(({ content }) => (content ? [content] : [])),
        });
      });
    },
    async remove(siteId, { base, paths }) {
      const opened = await open(siteId, base);
      const { site, manifest } = opened;
      const unknown = paths.find((path) => !Object.hasOwn(manifest, path));
      if (unknown !== undefined) throw new Refusal('file-not-found', `There is no file ${unknown} in r${base}.`);
      const what = paths.length === 1 ? paths[0]! : `${paths.length} files`;
      return write(opened, {
        files: new Map(),
        removed: paths,
        message: `Take out ${what}`,
        leftOut: site.leftOut,
      });
    },
    async readAsPages(siteId, { base, endings }) {
      const opened = await open(siteId, base);
      const known = (await revisions.decisions(siteId, base)).runPages ?? [];
      const fresh = endings.filter((ending) => !known.includes(ending));
      if (fresh.length === 0)
        throw new Refusal('bad-request', `Files ending in ${endings.join(', ')} are read as pages already.`);
      const named = fresh.map((ending) => `.${ending}`).join(' and ');
      const change = { files: new Map(), removed: [], leftOut: opened.site.leftOut, runPages: fresh };
      return write(opened, { ...change, message: `Files ending in ${named} are read as pages` });
    },
    async takeIn(siteId, { base, path }) {
      const opened = await open(siteId, base);
      const { site } = opened;
      const one = site.leftOut.find((left) => left.path === path && left.hash !== undefined);
      const bytes = one ? (await revisions.readBlobs([one.hash!])).get(one.hash!) : undefined;
      if (!one || !bytes)
        throw new Refusal(
          'file-not-found',
          `${path} was not left out of this site, or its bytes were not kept. Put the file in again.`,
        );
      const rest = site.leftOut.filter((left) => left !== one);
      return write(opened, {
        files: new Map([[path, bytes]]),
        removed: [],
        message: `Put in ${path}`,
        leftOut: rest,
      });
    },
  };
}

/** A folder as people write it, with its slash. */
function placeFor(folder: string): string {
  const path = parseSitePath(`${folder}/x`);
  if (!path.ok) throw new Refusal('bad-request', describePathProblem(path.problem));
  return folderOf(path.value);
}
