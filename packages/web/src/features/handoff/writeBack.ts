import { unzipSync } from 'fflate';
import { addressOf, type ChangedFileReply, type FileTextReply } from '@syndeton/contract';
import { contentHash } from '@syndeton/core';
import { readFrom, writeInto, type FileBefore, type FolderBackups, type WorkFolder } from '../site/index.ts';

/** What came of writing into the folder. */
export type WrittenBack =
  | { readonly kind: 'written'; readonly files: number }
  /** Somebody changed these files there meanwhile; nothing was written. */
  | { readonly kind: 'changed-there'; readonly paths: readonly string[] }
  /** The browser refused in the middle: these are new, those are as they were. Writing again goes on from here. */
  | {
      readonly kind: 'stopped';
      readonly written: readonly string[];
      readonly left: readonly string[];
      readonly why: string;
    };

interface Target {
  readonly path: string;
  readonly bytes: Uint8Array<ArrayBuffer> | undefined;
  readonly was: Uint8Array<ArrayBuffer> | undefined;
}

/**
 * Writes what changed since the folder was read into it. First everything is fetched and every file there is compared with the
 * revision it came from: when one is neither as it was nor as it should become, nothing is written. What is there is kept in a
 * backup before the first write, until the last is done.
 */
export async function writeBack(
  siteId: string,
  revision: number,
  { folder, revision: from }: WorkFolder,
  backups: FolderBackups,
): Promise<WrittenBack> {
  const at = { id: siteId, number: revision };
  const { changes } = (await json(addressOf('listChanges', at, { since: from }))) as {
    readonly changes: readonly ChangedFileReply[];
  };
  const wanted = await bytesOf(addressOf('downloadArchive', at, { since: from }), folder.name);
  const targets: Target[] = [];
  const changed: string[] = [];
  for (const { path, change } of [...changes].sort((a, b) => order(a) - order(b))) {
    const was = await readFrom(folder, path);
    const bytes = change === 'deleted' ? undefined : wanted.get(path);
    if (change !== 'deleted' && !bytes)
      throw new Error(`${path} did not come with the changed files. Nothing was written.`);
    const known = change === 'created' ? undefined : await hashIn(siteId, from, path);
    // written already when an earlier try was stopped
    if (hashOf(was) === hashOf(bytes)) continue;
    if (hashOf(was) === known) targets.push({ path, bytes, was });
    else changed.push(path);
  }
  if (changed.length > 0) return { kind: 'changed-there', paths: changed };
  await keepBefore(siteId, targets, backups);
  const written = new Set<string>();
  try {
    await writeInto(folder, targets, (path) => written.add(path));
  } catch (error) {
    const left = targets.map(({ path }) => path).filter((path) => !written.has(path));
    return {
      kind: 'stopped',
      written: [...written],
      left,
      why: error instanceof Error ? error.message : String(error),
    };
  }
  await backups.drop(siteId);
  return { kind: 'written', files: changes.length };
}

/** The folder as it was before a writing that was stopped. */
export async function putBack(siteId: string, { folder }: WorkFolder, backups: FolderBackups): Promise<number> {
  const before = (await backups.find(siteId)) ?? [];
  await writeInto(folder, before);
  await backups.drop(siteId);
  return before.length;
}

/** A second try adds what the first had not come to; what the first kept stays as it was then. */
async function keepBefore(siteId: string, targets: readonly Target[], backups: FolderBackups): Promise<void> {
  const kept: readonly FileBefore[] = (await backups.find(siteId)) ?? [];
  const known = new Set(kept.map(({ path }) => path));
  const fresh = targets.filter(({ path }) => !known.has(path)).map(({ path, was }) => ({ path, bytes: was }));
  await backups.keep(siteId, [...kept, ...fresh]);
}

const hashOf = (bytes: Uint8Array | undefined): string | undefined => bytes && contentHash(bytes);

/** Sheets before pages, so that no page is ever without its look; what goes, last. */
const order = ({ kind, change }: ChangedFileReply): number => (change === 'deleted' ? 2 : kind === 'sheet' ? 0 : 1);

async function hashIn(siteId: string, revision: number, path: string): Promise<string> {
  return ((await json(addressOf('readFile', { id: siteId, state: `r${revision}`, path }))) as FileTextReply).hash;
}

async function bytesOf(address: string, prefix: string): Promise<ReadonlyMap<string, Uint8Array<ArrayBuffer>>> {
  const reply = await fetch(address);
  if (!reply.ok) throw new Error('The changed files could not be fetched. Nothing was written.');
  const files = unzipSync(new Uint8Array(await reply.arrayBuffer()));
  const short = (name: string): string => (name.startsWith(`${prefix}/`) ? name.slice(prefix.length + 1) : name);
  return new Map(Object.entries(files).map(([name, bytes]) => [short(name), new Uint8Array(bytes)]));
}

async function json(address: string): Promise<unknown> {
  const reply = await fetch(address);
  if (!reply.ok) throw new Error('The server did not say what changed. Nothing was written.');
  return reply.json();
}
