import { folderOf } from '@syndeton/core';

/** Longest part of the address that lists pages by name; servers take addresses of some thousand characters. */
const mostCharacters = 3000;

/** The pages an address has chosen, in rail order; all when it has chosen none that exist. */
export function readScope(search: URLSearchParams, pages: readonly string[]): readonly string[] {
  const named = new Set(search.getAll('page'));
  const folders = new Set(search.getAll('folder'));
  const ranges = rangesIn(search.get('pages') ?? '');
  const chosen = pages.filter(
    (page, i) => named.has(page) || folders.has(folderOf(page)) || ranges.some(([from, to]) => i >= from && i <= to),
  );
  return chosen.length === 0 ? pages : chosen;
}

/**
 * Writes the chosen pages into an address: whole folders as `folder=`, single pages as `page=`; when that grows too long, as runs
 * of numbers in rail order, `pages=3-250,260`, from 1.
 */
export function writeScope(
  search: URLSearchParams,
  chosen: readonly string[],
  pages: readonly string[],
): URLSearchParams {
  const out = new URLSearchParams(search);
  for (const name of ['page', 'folder', 'pages']) out.delete(name);
  if (chosen.length === 0 || chosen.length === pages.length) return out;
  const wanted = new Set(chosen);
  const inFolder = new Map<string, string[]>();
  for (const page of pages) inFolder.set(folderOf(page), [...(inFolder.get(folderOf(page)) ?? []), page]);
  const folders = [...inFolder].filter(
    ([folder, inside]) => folder !== '' && inside.length > 1 && inside.every((page) => wanted.has(page)),
  );
  const single = chosen.filter((page) => !folders.some(([folder]) => folder === folderOf(page)));
  if (single.join('').length + folders.map(([folder]) => folder).join('').length > mostCharacters) {
    out.set('pages', runsOf(pages.flatMap((page, i) => (wanted.has(page) ? [i] : []))));
    return out;
  }
  for (const [folder] of folders) out.append('folder', folder);
  for (const page of single) out.append('page', page);
  return out;
}

function rangesIn(text: string): readonly (readonly [number, number])[] {
  return text.split(',').flatMap((part) => {
    const found = /^(\d+)(?:-(\d+))?$/.exec(part);
    return found ? [[Number(found[1]) - 1, Number(found[2] ?? found[1]) - 1] as const] : [];
  });
}

function runsOf(indexes: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const i of indexes) {
    const last = runs.at(-1);
    if (last && last[1] === i - 1) last[1] = i;
    else runs.push([i, i]);
  }
  return runs.map(([from, to]) => (from === to ? `${from + 1}` : `${from + 1}-${to + 1}`)).join(',');
}
