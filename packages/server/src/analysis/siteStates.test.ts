import { expect, test } from '@jest/globals';
import { makeSite, withRunPages, type Operation, type Site } from '@syndeton/core';
import { sha256 } from '../stores/sha256.ts';
import { SiteStates } from './siteStates.ts';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const page = (rule: string): string => `<!DOCTYPE html><title>t</title><style>${rule}</style><p class="a">x`;
const first = {
  'a.html': page('.a { color: red }'),
  'b.html': `${page('.a { color: red }')}y`,
  'picture.png': 'PNG',
};
const gather: Operation = { kind: 'gather-rules', sheet: 'site.css' };

/** A store of revisions by number, that tells which bytes it was asked for. */
function storeOf(
  revisions: readonly Readonly<Record<string, string | Uint8Array>>[],
  runPages: readonly string[] = [],
) {
  const asked: string[][] = [];
  const files = revisions.map((one) =>
    Object.entries(one).map(
      ([path, content]) => [path, typeof content === 'string' ? bytes(content) : content] as const,
    ),
  );
  const blobs = new Map(files.flat().map(([, content]) => [sha256(content), Buffer.from(content)]));
  const pathOf = new Map(files.flat().map(([path, content]) => [sha256(content), path]));
  return {
    asked,
    manifest: (_site: string, number: number) =>
      Promise.resolve(Object.fromEntries((files[number - 1] ?? []).map(([path, content]) => [path, sha256(content)]))),
    decisions: () => Promise.resolve({ absent: [], leftOut: [], runPages: [...runPages] }),
    steps: () => Promise.resolve([]),
    readBlobs(hashes: readonly string[]) {
      asked.push(hashes.map((hash) => pathOf.get(hash)!).sort());
      return Promise.resolve(new Map(hashes.map((hash) => [hash, blobs.get(hash)!])));
    },
  };
}

const siteOf = (files: Readonly<Record<string, string>>): Site =>
  makeSite(Object.entries(files).map(([path, text]) => [path, bytes(text)] as const));

test('a site on its way in is not read again when it is there', async () => {
  const store = storeOf([first]);
  const states = new SiteStates(store);
  const coming = siteOf(first);
  states.checker.check(coming);
  states.expect(coming);
  const { site } = await states.revision('one', 1);
  expect(store.asked).toEqual([[]]);
  expect(site.files.get('a.html')).toBe(coming.files.get('a.html'));
  states.checker.check(site);
  expect(states.checker.pagesRead).toBe(0);
});

test('of a saved draft nothing is read again, and the revision before keeps its files alone', async () => {
  const states = new SiteStates(storeOf([first]));
  const { site: drafted } = await states.draftOf({ siteId: 'one', number: 1, operations: [gather] });
  const saved = Object.fromEntries([...drafted.files.values()].map((file) => [file.path, file.bytes]));
  const store = storeOf([first, saved]);
  const next = new SiteStates(store);
  await next.draftOf({ siteId: 'one', number: 1, operations: [gather] });
  const { site } = await next.revision('one', 2);
  expect(store.asked).toEqual([['a.html', 'b.html', 'picture.png'], []]);
  expect([...site.files.keys()].sort()).toEqual(['a.html', 'b.html', 'picture.png', 'site.css']);
  expect((await next.revision('one', 1)).draft.newest).toBeUndefined();
});

test('what has other bytes now is read', async () => {
  const second = { ...first, 'b.html': page('.a { color: blue }') };
  const store = storeOf([first, second]);
  const states = new SiteStates(store);
  const { site: before } = await states.revision('one', 1);
  const { site } = await states.revision('one', 2);
  expect(store.asked[1]).toEqual(['b.html']);
  expect(site.files.get('a.html')).toBe(before.files.get('a.html'));
  expect(site.files.get('b.html')!.text).toBe(second['b.html']);
});

test('another site is read whole', async () => {
  const store = storeOf([first]);
  const states = new SiteStates(store);
  const { site } = await states.revision('one', 1);
  const other = await states.siteOf('two', 1);
  expect(store.asked[1]).toEqual(store.asked[0]);
  expect(other.files.get('a.html')).not.toBe(site.files.get('a.html'));
});

test('a page that a server runs is a page only as decided', async () => {
  const files = { 'a.php': `${page('')}<?php echo 1 ?>` };
  const states = new SiteStates(storeOf([files]));
  states.expect(withRunPages(siteOf(files), ['php']));
  expect((await states.revision('one', 1)).site.files.get('a.php')!.kind).toBe('other');
  const decided = new SiteStates(storeOf([files], ['php']));
  expect((await decided.revision('one', 1)).site.files.get('a.php')!.kind).toBe('page');
});

test('a revision there is not', async () => {
  const states = new SiteStates({ ...storeOf([]), manifest: () => Promise.resolve(undefined) });
  await expect(states.revision('one', 7)).rejects.toMatchObject({ code: 'revision-not-found' });
});
