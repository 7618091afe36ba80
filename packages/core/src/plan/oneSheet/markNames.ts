import { isPlainClassName } from '../../operations/gather/className.ts';
import { fileNameOf, folderOf } from '../../source/sitePath.ts';

/** What a mark is for. */
export interface MarkUse {
  readonly pages: readonly string[];
  /** Selectors of the rules for pages that have it. */
  readonly with: readonly string[];
  /** Selectors of the rules for pages that lack it. */
  readonly without: readonly string[];
}

/**
 * A class name that says what pages have in common: their folder, the one page, what they hold and others lack; free among `taken`
 * (lower case), which it then joins. `all`: the pages that could have it.
 */
export function nameMark(use: MarkUse, all: readonly string[], taken: Set<string>): string {
  const place = placeOf(use.pages, all);
  const word = subjectOf([...use.with, ...use.without]);
  const lacking = use.with.length === 0;
  const candidates = [
    ...(place === undefined ? [] : [place, `${place}-page${use.pages.length > 1 ? 's' : ''}`]),
    ...(word === undefined ? [] : lacking ? [`no-${word}`, `without-${word}`] : [`with-${word}`, `own-${word}`]),
    ...(place !== undefined && word !== undefined ? [`${place}-${word}`] : []),
    commonWord(use.pages),
  ];
  const plain = candidates.flatMap((name) => safe(name) ?? []);
  const free = plain.find((name) => !taken.has(name));
  const name = free ?? numbered(plain[0] ?? 'these-pages', taken);
  taken.add(name);
  return name;
}

function numbered(base: string, taken: ReadonlySet<string>): string {
  for (let n = 2; ; n++) if (!taken.has(`${base}-${n}`)) return `${base}-${n}`;
}

function safe(name: string | undefined): string | undefined {
  const words = name
    ?.toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '');
  return words !== undefined && words.length > 1 && isPlainClassName(words) ? words : undefined;
}

/** The page, or the folder when these are all pages in it. */
function placeOf(pages: readonly string[], all: readonly string[]): string | undefined {
  if (pages.length === 1) {
    const name = fileNameOf(pages[0]!).replace(/\.[^.]*$/, '');
    const folder = folderName(folderOf(pages[0]!));
    return name.toLowerCase() !== 'index' ? name : (folder ?? 'home');
  }
  const folder = sharedFolder(pages);
  if (folder === '' || all.some((page) => page.startsWith(folder) && !pages.includes(page))) return undefined;
  return folderName(folder);
}

function sharedFolder(pages: readonly string[]): string {
  let folder = folderOf(pages[0]!);
  for (const page of pages) while (!page.startsWith(folder)) folder = folderOf(folder.slice(0, -1));
  return folder;
}

/** `news`; where that is a number, with what it lies in: `news-2024`. */
function folderName(folder: string): string | undefined {
  const parts = folder.split('/').filter(Boolean);
  const from = parts.findLastIndex((part) => /^[a-z]/i.test(part));
  return parts.length === 0 ? undefined : parts.slice(Math.max(from, 0)).join('-');
}

/** The class, ID or type that most selectors are about. */
function subjectOf(selectors: readonly string[]): string | undefined {
  const counts = new Map<string, number>();
  for (const selector of selectors) {
    const names = [...selector.matchAll(/[.#]([a-z][\w-]*)/gi)].map((found) => found[1]!.toLowerCase());
    const types = names.length > 0 ? [] : [...selector.matchAll(/(?:^|[\s,>+~])([a-z][a-z0-9]*)/gi)].map((found) => typeWords[found[1]!.toLowerCase()] ?? found[1]!.toLowerCase()); // prettier-ignore
    for (const word of new Set([...names, ...types])) counts.set(word, (counts.get(word) ?? 0) + 1);
  }
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
}

const typeWords: Readonly<Record<string, string>> = {
  a: 'links', p: 'text', td: 'cells', th: 'head-cells', tr: 'rows', h1: 'title', h2: 'headings', h3: 'headings', h4: 'headings',
  ul: 'list', ol: 'list', li: 'items', img: 'pictures', body: 'page', pre: 'code', dl: 'terms', dt: 'terms', dd: 'terms', hr: 'lines',
}; // prettier-ignore

/** What the pages' names begin with, or the folder most of them lie in. */
function commonWord(pages: readonly string[]): string {
  const names = pages.map((page) => fileNameOf(page).replace(/\.[^.]*$/, ''));
  let start = names[0]!;
  for (const name of names) while (!name.startsWith(start)) start = start.slice(0, -1);
  if (start.length > 2) return `${start}-pages`;
  const folder = folderName(sharedFolder(pages));
  return folder === undefined ? 'some-pages' : `some-${folder}`;
}
