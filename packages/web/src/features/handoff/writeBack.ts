import { unzipSync } from 'fflate';
import type { ChangedFileReply, FileTextReply } from '@syndeton/contract';
import { contentHash } from '@syndeton/core';
import { readFrom, rememberFolder, writeInto, type WorkFolder } from '../site/index.ts';

/** What came of writing into the folder: the files written, or those that somebody changed there meanwhile. */
export type WrittenBack =
  | { readonly kind: 'written'; readonly files: number }
  | { readonly kind: 'changed-there'; readonly paths: readonly string[] };

/**
 * Writes what changed since the folder was read into it. First every file there is compared with the revision it came from: when
 * one differs, nothing is written.
 */
export async function writeBack(
  siteId: string,
  revision: number,
  { folder, revision: from }: WorkFolder,
): Promise<WrittenBack> {
  const at = `/api/sites/${siteId}`;
  const { changes } = (await json(`${at}/revisions/${revision}/changes?since=${from}`)) as {
    changes: readonly ChangedFileReply[];
  };
  const changed: string[] = [];
  for (const { path, change } of changes) {
    const there = await readFrom(folder, path);
    const known =
      change === 'created'
        ? undefined
        : ((await json(`${at}/files/r${from}/${path.split('/').map(encodeURIComponent).join('/')}`)) as FileTextReply)
            .hash;
    if ((there && contentHash(there)) !== known) changed.push(path);
  }
  if (changed.length > 0) return { kind: 'changed-there', paths: changed };
  const archive = await fetch(`${at}/revisions/${revision}/archive?since=${from}`);
  if (!archive.ok) throw new Error('The changed files could not be fetched. Nothing was written.');
  const files = unzipSync(new Uint8Array(await archive.arrayBuffer()));
  const bytesOf = new Map(
    Object.entries(files).map(([name, bytes]) => [
      name.slice(name.startsWith(`${folder.name}/`) ? folder.name.length + 1 : 0),
      bytes,
    ]),
  );
  const wanted = [...changes].sort((a, b) => order(a) - order(b));
  await writeInto(
    folder,
    wanted.map(({ path, change }) => ({
      path,
      bytes: change === 'deleted' ? undefined : new Uint8Array(bytesOf.get(path)!),
    })),
  );
  await rememberFolder(siteId, { folder, revision });
  return { kind: 'written', files: changes.length };
}

/** Sheets before pages, so that no page is ever without its look; what goes, last. */
const order = ({ kind, change }: ChangedFileReply): number => (change === 'deleted' ? 2 : kind === 'sheet' ? 0 : 1);

async function json(address: string): Promise<unknown> {
  const reply = await fetch(address);
  if (!reply.ok) throw new Error('The server did not say what changed. Nothing was written.');
  return reply.json();
}
