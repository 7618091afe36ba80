import type { Remote } from './remote.ts';

/** How far an upload is. */
export interface UploadState {
  /** Files that are on the server as they should be, checked by size and bytes; those that were there already too. */
  readonly there: readonly string[];
  readonly total: number;
  /** The file it stopped at, and why; nothing after it was written. */
  readonly stopped?: { readonly path: string; readonly why: string };
}

/**
 * Puts files on a server in the order given, each checked before the next one: a page is never there before what it needs. It stops at
 * the first that fails; done again, what is there is left as it is.
 */
export async function uploadFiles(
  remote: Remote,
  files: readonly (readonly [path: string, read: () => Promise<Buffer>])[],
  tell: (state: UploadState) => void,
  isOver: () => boolean = () => false,
): Promise<UploadState> {
  const there: string[] = [];
  const total = files.length;
  for (const [path, read] of files) {
    if (isOver()) return { there, total, stopped: { path, why: 'It was stopped.' } };
    try {
      const bytes = await read();
      if (!(await isThere(remote, path, bytes))) {
        await remote.write(path, bytes);
        if (!(await isThere(remote, path, bytes)))
          return { there, total, stopped: { path, why: 'What came back is not what was sent.' } };
      }
    } catch (error) {
      return { there, total, stopped: { path, why: (error as Error).message } };
    }
    there.push(path);
    tell({ there: [...there], total });
  }
  return { there, total };
}

async function isThere(remote: Remote, path: string, bytes: Buffer): Promise<boolean> {
  if ((await remote.size(path)) !== bytes.length) return false;
  return (await remote.read(path))?.equals(bytes) ?? false;
}
