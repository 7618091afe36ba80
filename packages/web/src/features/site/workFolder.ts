import { createStore, get, set } from 'idb-keyval';
import type { DroppedFile } from './packFiles.ts';

/** Folders of this computer that were opened to work in, by site: Hand-off writes changed files back into them. */
const store = (): ReturnType<typeof createStore> => createStore('syndeton', 'folders');

/** Whether the browser lets a page open a folder. File System Access, "The showDirectoryPicker() method". */
export const canOpenFolder = (): boolean => 'showDirectoryPicker' in window;

/** A folder the person chooses, to read and to write; undefined when they think better of it. */
export async function chooseFolder(): Promise<FileSystemDirectoryHandle | undefined> {
  try {
    return await (
      window as unknown as { showDirectoryPicker(options: object): Promise<FileSystemDirectoryHandle> }
    ).showDirectoryPicker({ mode: 'readwrite' });
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') return undefined;
    throw error;
  }
}

export async function filesOfFolder(
  folder: FileSystemDirectoryHandle,
  path = folder.name,
): Promise<readonly DroppedFile[]> {
  const out: DroppedFile[] = [];
  for await (const entry of entriesOf(folder)) {
    if (entry.kind === 'file')
      out.push({ path: `${path}/${entry.name}`, file: await (entry as FileSystemFileHandle).getFile() });
    else if (!/^\.(git|svn|hg)$/.test(entry.name))
      out.push(...(await filesOfFolder(entry as FileSystemDirectoryHandle, `${path}/${entry.name}`)));
  }
  return out;
}

const entriesOf = (folder: FileSystemDirectoryHandle): AsyncIterable<FileSystemHandle> =>
  (folder as unknown as { values(): AsyncIterable<FileSystemHandle> }).values();

/** A folder and the revision whose files it holds. */
export interface WorkFolder {
  readonly folder: FileSystemDirectoryHandle;
  readonly revision: number;
}

export const rememberFolder = (siteId: string, work: WorkFolder): Promise<void> => set(siteId, work, store());

/** Undefined as well where the browser keeps nothing. */
export const folderOfSite = async (siteId: string): Promise<WorkFolder | undefined> =>
  typeof indexedDB === 'undefined' ? undefined : get<WorkFolder>(siteId, store());

/** The bytes of a file below the folder; undefined when there is none. */
export async function readFrom(
  folder: FileSystemDirectoryHandle,
  path: string,
): Promise<Uint8Array<ArrayBuffer> | undefined> {
  try {
    const segments = path.split('/');
    const name = segments.pop()!;
    let at = folder;
    for (const segment of segments) at = await at.getDirectoryHandle(segment);
    return new Uint8Array(await (await (await at.getFileHandle(name)).getFile()).arrayBuffer());
  } catch (error) {
    if (error instanceof DOMException && error.name === 'NotFoundError') return undefined;
    throw error;
  }
}

/**
 * Writes or deletes files below the folder; each file whole, as the browser puts a written file in place at once. `onFile` is told
 * of each one that is done.
 */
export async function writeInto(
  folder: FileSystemDirectoryHandle,
  files: readonly { readonly path: string; readonly bytes: Uint8Array<ArrayBuffer> | undefined }[],
  onFile: (path: string) => void = () => undefined,
): Promise<void> {
  for (const { path, bytes } of files) {
    const segments = path.split('/');
    const name = segments.pop()!;
    let at = folder;
    for (const segment of segments) at = await at.getDirectoryHandle(segment, { create: true });
    if (bytes) {
      const writable = await (await at.getFileHandle(name, { create: true })).createWritable();
      await writable.write(bytes);
      await writable.close();
    } else await removeFrom(at, name);
    onFile(path);
  }
}

async function removeFrom(folder: FileSystemDirectoryHandle, name: string): Promise<void> {
  try {
    await folder.removeEntry(name);
  } catch (error) {
    // gone already is what was wanted
    if (!(error instanceof DOMException && error.name === 'NotFoundError')) throw error;
  }
}
