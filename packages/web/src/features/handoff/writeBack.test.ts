import { beforeEach, expect, jest, test } from '@jest/globals';
import { zipSync } from 'fflate';
import { contentHash } from '@syndeton/core';
import type { FileBefore, FolderBackups, WorkFolder } from '../site/index.ts';
import { putBack, writeBack } from './writeBack.ts';

const bytes = (text: string): Uint8Array<ArrayBuffer> => new Uint8Array(new TextEncoder().encode(text));
const textOf = (content: Uint8Array | undefined): string | undefined => content && new TextDecoder().decode(content);

/** A folder in memory that refuses the write of one file. */
function makeFolder(files: Map<string, Uint8Array<ArrayBuffer>>, refuse: { path: string | undefined }) {
  const notFound = (): Error => new DOMException('not found', 'NotFoundError');
  const directory = (prefix: string): object => ({
    name: 'walks',
    getDirectoryHandle: (name: string) => Promise.resolve(directory(`${prefix}${name}/`)),
    removeEntry: (name: string) => (files.delete(prefix + name) ? Promise.resolve() : Promise.reject(notFound())),
    getFileHandle(name: string, options?: { create: boolean }) {
      const path = prefix + name;
      if (!options?.create && !files.has(path)) return Promise.reject(notFound());
      let next = new Uint8Array();
      return Promise.resolve({
        getFile: () => Promise.resolve({ arrayBuffer: () => Promise.resolve(files.get(path)!.buffer) }),
        createWritable: () =>
          Promise.resolve({
            write: (content: Uint8Array<ArrayBuffer>) => Promise.resolve(void (next = content)),
            close: () =>
              path === refuse.path
                ? Promise.reject(new Error('the disk is full'))
                : Promise.resolve(void files.set(path, next)),
          }),
      });
    },
  });
  return directory('') as unknown as FileSystemDirectoryHandle;
}

function memoryBackups(): FolderBackups {
  const kept = new Map<string, readonly FileBefore[]>();
  return {
    keep: (id, files) => Promise.resolve(void kept.set(id, files)),
    find: (id) => Promise.resolve(kept.get(id)),
    drop: (id) => Promise.resolve(void kept.delete(id)),
  };
}

const old = { 'a.html': 'a1', 'b.html': 'b1', 'gone.css': 'g1' };
const now = { 'a.html': 'a2', 'b.html': 'b2', 'css/s.css': 's2' };
const change = (path: string, kind: string, what: string) => ({
  path,
  change: what,
  kind,
  bytesBefore: 2,
  bytesAfter: 2,
});
const changes = [
  change('a.html', 'page', 'edited'),
  change('b.html', 'page', 'edited'),
  change('css/s.css', 'sheet', 'created'),
  change('gone.css', 'sheet', 'deleted'),
];

let files: Map<string, Uint8Array<ArrayBuffer>>;
let refuse: { path: string | undefined };
let work: WorkFolder;
let backups: FolderBackups;
const held = () => Object.fromEntries([...files].map(([path, content]) => [path, textOf(content)]));
beforeEach(() => {
  files = new Map(Object.entries(old).map(([path, text]) => [path, bytes(text)]));
  refuse = { path: undefined };
  work = { folder: makeFolder(files, refuse), revision: 1 };
  backups = memoryBackups();
  const archive = zipSync(Object.fromEntries(Object.entries(now).map(([path, text]) => [path, bytes(text)])));
  globalThis.fetch = jest.fn((address: unknown) => {
    const path = /files\/r1\/(.*)$/.exec(String(address))?.[1];
    if (path !== undefined) return Promise.resolve(Response.json({ hash: contentHash(bytes(old[path as 'a.html'])) }));
    return Promise.resolve(String(address).includes('/changes') ? Response.json({ changes }) : new Response(archive));
  }) as unknown as typeof fetch;
});

test('everything is written, sheets first; the backup goes when all is done', async () => {
  expect(await writeBack('s', 2, work, backups)).toEqual({ kind: 'written', files: 4 });
  expect(held()).toEqual(now);
  expect(await backups.find('s')).toBeUndefined();
});

test('a file that somebody changed there: nothing is written', async () => {
  files.set('b.html', bytes('mine'));
  expect(await writeBack('s', 2, work, backups)).toEqual({ kind: 'changed-there', paths: ['b.html'] });
  expect(held()).toEqual({ ...old, 'b.html': 'mine' });
});

test('a file that does not come with the others is not taken for one to delete: nothing is written', async () => {
  const archive = zipSync({ 'a.html': bytes('a2') });
  const before = globalThis.fetch;
  globalThis.fetch = ((address: string) =>
    address.includes('/archive') ? Promise.resolve(new Response(archive)) : before(address)) as typeof fetch;
  await expect(writeBack('s', 2, work, backups)).rejects.toThrow('did not come with the changed files');
  expect(held()).toEqual(old);
});

test('a write that fails in the middle: what is new and what is not is said, and a second try goes on', async () => {
  refuse.path = 'b.html';
  expect(await writeBack('s', 2, work, backups)).toEqual({
    kind: 'stopped',
    written: ['css/s.css', 'a.html'],
    left: ['b.html', 'gone.css'],
    why: 'the disk is full',
  });
  refuse.path = undefined;
  expect(await writeBack('s', 2, work, backups)).toEqual({ kind: 'written', files: 4 });
  expect(held()).toEqual(now);
});

test('after a write that failed the folder can be put back as it was, also after a second failure', async () => {
  for (const path of ['a.html', 'b.html']) {
    refuse.path = path;
    expect((await writeBack('s', 2, work, backups)).kind).toBe('stopped');
  }
  refuse.path = undefined;
  await putBack('s', work, backups);
  expect(held()).toEqual(old);
  expect(await backups.find('s')).toBeUndefined();
});
