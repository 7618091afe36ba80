import { createStore, del, get, set } from 'idb-keyval';

/** A file as it was in a folder before it was written to; without bytes when it was not there. */
export interface FileBefore {
  readonly path: string;
  readonly bytes: Uint8Array<ArrayBuffer> | undefined;
}

/** What a folder held, kept until all of a revision is written into it. */
export interface FolderBackups {
  keep(siteId: string, files: readonly FileBefore[]): Promise<void>;
  find(siteId: string): Promise<readonly FileBefore[] | undefined>;
  drop(siteId: string): Promise<void>;
}

const store = (): ReturnType<typeof createStore> => createStore('syndeton-backups', 'folders');

/** In this browser, so that they are there after a crash too. */
export const folderBackups: FolderBackups = {
  keep: (siteId, files) => set(siteId, files, store()),
  find: async (siteId) => (typeof indexedDB === 'undefined' ? undefined : get(siteId, store())),
  drop: (siteId) => del(siteId, store()),
};
