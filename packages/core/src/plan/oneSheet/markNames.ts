import { isPlainClassName } from '../../operations/gather/className.ts';
import { fileNameOf, folderOf } from '../../source/sitePath.ts';

/** A rule for pages that have a mark, or lack it. */
export interface MarkedRule {
  readonly selector: string;
  readonly properties: readonly string[];
}

/** What a mark is for. */
export interface MarkUse {
  readonly pages: readonly string[];
  readonly with: readonly MarkedRule[];
  readonly without: readonly MarkedRule[];
}

/**
 * A class name that says what pages have in common: their folder, the one page, what they hold and others lack; free among `taken`
 * (lower case), which it then joins. `all`: the pages that could have it.
 */
export function nameMark(use: MarkUse, all: readonly string[], taken: Set<string>): string {
  const place = placeOf(use.pages, all);
  const rules = [...use.with, ...use.without];
  const { word, ofAll } = subjectOf(rules);
  const pair = use.pages.length === 2 && !ofAll ? [use.pages.map(pageWord).join('-and-')] : [];
  const lacking = use.with.length === 0;
  const candidates = [
    ...(place === undefined ? [] : [place, `${place}-page${use.pages.length > 1 ? 's' : ''}`]),
    ...pair,
    ...(word === undefined ? [] : lacking ? [`other-${word}`, `without-${word}`] : [`own-${word}`, `with-${word}`]),
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
  if (pages.length === 1) return pageWord(pages[0]!);
  const folder = sharedFolder(pages);
  if (folder === '' || all.some((page) => page.startsWith(folder) && !pages.includes(page))) return undefined;
  return folderName(folder);
}

function pageWord(page: string): string {
  const name = fileNameOf(page).replace(/\.[^.]*$/, '');
  return name.toLowerCase() !== 'index' ? name : (folderName(folderOf(page)) ?? 'home');
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

/** The class or ID that most rules are about; where they are about types, what they say of them. */
function subjectOf(rules: readonly MarkedRule[]): { readonly word: string | undefined; readonly ofAll: boolean } {
  const counts = new Map<string, number>();
  for (const { selector, properties } of rules) {
    // what a selector is about stands last in it
    const names = selector
      .split(',')
      .flatMap((one) => /[.#]([a-z][\w-]*)[^\s.#>+~]*$/i.exec(one.trim())?.[1]?.toLowerCase() ?? []);
    const words =
      names.length > 0
        ? names
        : properties.flatMap((property) => subjects.find(([pattern]) => pattern.test(property))?.[1] ?? []);
    for (const word of new Set(words)) counts.set(word, (counts.get(word) ?? 0) + 1);
  }
  const [first] = [...counts].sort((a, b) => b[1] - a[1]);
  return { word: first?.[0], ofAll: first?.[1] === rules.length };
}

const subjects: readonly (readonly [property: RegExp, word: string])[] = [
  [/^(font|line-height|letter-spacing|word-spacing)/, 'type'],
  [/^(color|background)/, 'colours'],
  [/^(margin|padding|gap)/, 'spacing'],
  [/^(border|outline)/, 'lines'],
  [/^(width|height|min-|max-|display|float|position|flex|grid|columns?)/, 'layout'],
  [/^(text-|white-space)/, 'text'],
];

/** What the pages' names begin with, or the folder most of them lie in. */
function commonWord(pages: readonly string[]): string {
  const names = pages.map((page) => fileNameOf(page).replace(/\.[^.]*$/, ''));
  let start = names[0]!;
  for (const name of names) while (!name.startsWith(start)) start = start.slice(0, -1);
  if (start.length > 2) return `${start}-pages`;
  const folder = folderName(sharedFolder(pages));
  return folder === undefined ? 'some-pages' : `some-${folder}`;
}
