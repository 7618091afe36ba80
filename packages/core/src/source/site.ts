import { contentHash } from './contentHash.ts';
import { isEncodingAgreed, pageEncoding } from './pageEncoding.ts';
import { sheetEncoding } from './sheetEncoding.ts';
import { extensionOf, fileKindOf, runEndings, type FileKind } from './sitePath.ts';
import { decodeText, encodeText, sameBytes } from './textCoding.ts';

/**
 * One file of a site. `text` is set for pages and sheets that encode back to their own bytes; a page or sheet
 * without `text` is opaque: shown, carried along, never edited. So is a page that servers
 * send as XML, and one on whose encoding browsers do not agree. A sheet's text is decoded with UTF-8 as its environment.
 */
export interface SiteFile {
  readonly path: string;
  readonly kind: FileKind;
  readonly bytes: Uint8Array;
  /** In bytes. */
  readonly size: number;
  readonly hash: string;
  readonly encoding?: string;
  readonly text?: string;
  /** More tags or rules than are looked at: nothing of it is read, by nobody. */
  readonly isTooMuch?: true;
  /** A page that a server runs before it sends it, so that what stands between `<?` and `?>` is not sent. */
  readonly isRun?: true;
}

/** A page: kept, its bytes would be its text once more, so they are made of it when asked for; it encodes back to them. */
class TextPage implements SiteFile {
  readonly kind = 'page';
  readonly path: string;
  readonly hash: string;
  readonly size: number;
  readonly encoding: string;
  readonly text: string;
  declare readonly isRun?: true;

  constructor({ path, hash, size, encoding, isRun }: PageBytes, text: string) {
    this.path = path;
    this.hash = hash;
    this.size = size;
    this.encoding = encoding;
    this.text = text;
    if (isRun) this.isRun = true;
  }

  get bytes(): Uint8Array {
    return encodeText(this.text, this.encoding)!;
  }
}

/** A page whose text is known to encode back. */
export const makeTextPage = (about: PageBytes, text: string): SiteFile => new TextPage(about, text);

type PageBytes = Pick<SiteFile, 'path' | 'hash' | 'size' | 'isRun'> & { readonly encoding: string };

/** The set of files brought in, by site path. */
export interface Site {
  readonly files: ReadonlyMap<string, SiteFile>;
  /** Endings of files that are pages besides the usual ones, as servers run them: `php`. A file without markup of a whole page is none. */
  readonly pageTypes?: ReadonlySet<string>;
  /** Paths that pages ask for and that are on no server either: they count as nothing. */
  readonly absent?: ReadonlySet<string>;
  /** By sheet, the pages that somebody decided are to do without it; of a sheet that was decided about, perhaps none. */
  readonly leftOut?: ReadonlyMap<string, ReadonlySet<string>>;
}

/** The site where these paths, as far as it has no such file, are taken to be nowhere. */
export const withAbsent = (site: Site, paths: readonly string[]): Site =>
  paths.length === 0 ? site : { ...site, absent: new Set([...(site.absent ?? []), ...paths]) };

/** The site where these pages are to do without these sheets as well. */
export function withLeftOut(
  site: Site,
  decided: readonly { readonly sheet: string; readonly pages: readonly string[] }[],
): Site {
  if (decided.length === 0) return site;
  const leftOut = new Map(site.leftOut);
  for (const { sheet, pages } of decided) leftOut.set(sheet, new Set([...(leftOut.get(sheet) ?? []), ...pages]));
  return { ...site, leftOut };
}

/** What people decided about a site that no file of it says, as plain data. */
export interface SiteDecisions {
  readonly absent: readonly string[];
  readonly leftOut: readonly { readonly sheet: string; readonly pages: readonly string[] }[];
  /** Endings of files that are pages as well: what a server runs. */
  readonly runPages?: readonly string[];
}

export const decisionsOf = ({ absent, leftOut, pageTypes }: Site): SiteDecisions => ({
  absent: [...(absent ?? [])],
  leftOut: [...(leftOut ?? [])].map(([sheet, pages]) => ({ sheet, pages: [...pages] })),
  ...(pageTypes ? { runPages: [...pageTypes].sort() } : {}),
});

export const withDecisions = (site: Site, { absent, leftOut, runPages = [] }: SiteDecisions): Site =>
  withLeftOut(withAbsent(withRunPages(site, runPages), absent), leftOut);

/** The site where files with these endings are pages as well, as far as they hold whole ones. */
export function withRunPages(site: Site, endings: readonly string[]): Site {
  const { pageTypes: known } = site;
  if (endings.every((ending) => known?.has(ending))) return site;
  const pageTypes = new Set([...(known ?? []), ...endings]);
  const files = new Map(
    [...site.files].map(([path, file]) => [
      path,
      file.kind === 'other' && pageTypes.has(extensionOf(path)) ? makeSiteFile(path, file.bytes, pageTypes) : file,
    ]),
  );
  return { ...site, files, pageTypes };
}

/** Files that hold whole pages for a server to run, and are not read as pages. */
export const runPagesUnread = ({ files }: Site): readonly SiteFile[] =>
  [...files.values()].filter(
    ({ kind, path, bytes }) => kind === 'other' && runEndings.has(extensionOf(path)) && isWholePage(bytes),
  );

/** Whether a path is of no file of the site and said to be nowhere. */
export const isAbsent = (site: Site, path: string): boolean =>
  (site.absent?.has(path) ?? false) && !site.files.has(path);

/** Common practice of servers: `.xhtml` goes out as application/xhtml+xml. */
export const isServedAsXml = (path: string): boolean => /\.xhtml$/i.test(path);

export function makeSiteFile(path: string, bytes: Uint8Array, pageTypes?: ReadonlySet<string>): SiteFile {
  const kind = fileKindOf(path);
  const hash = contentHash(bytes);
  const size = bytes.length;
  const file = { path, kind, bytes, hash, size };
  if (kind === 'other')
    return fileKindOf(path, pageTypes) === 'page' && isWholePage(bytes) ? makeRunPage(path, bytes, hash) : file;
  if (isTooMuch(kind, bytes)) return { ...file, isTooMuch: true };
  // read by another parser than ours: shown, carried along, never edited
  if (isServedAsXml(path)) return file;
  if (kind === 'page' && !isEncodingAgreed(bytes)) return file;
  const encoding = kind === 'page' ? pageEncoding(bytes) : sheetEncoding(bytes, 'utf-8');
  for (const candidate of kind === 'page' ? [encoding] : [encoding, 'windows-1252']) {
    const text = decodeText(bytes, candidate);
    const back = encodeText(text, candidate);
    if (!back || !sameBytes(back, bytes)) continue;
    return kind === 'page'
      ? new TextPage({ path, hash, size, encoding: candidate }, text)
      : { ...file, encoding: candidate, text };
  }
  return { ...file, encoding };
}

/** Far more than people write; a tree of it would fill the memory of everybody's machine. */
const mostTags = 1_000_000;
const mostBlocks = 200_000;

/** Counted in bytes: `<` and `{` of a page, whose scripts have the latter too; `{` of a sheet. */
const isTooMuch = (kind: FileKind, bytes: Uint8Array): boolean =>
  kind === 'page'
    ? holdsMore(bytes, 0x3c, mostTags) || holdsMore(bytes, 0x7b, 2 * mostBlocks)
    : holdsMore(bytes, 0x7b, mostBlocks);

function holdsMore(bytes: Uint8Array, mark: number, most: number): boolean {
  if (bytes.length <= most) return false;
  let count = 0;
  for (const byte of bytes) if (byte === mark && ++count > most) return true;
  return false;
}

/** A part that other files take in, or code alone, is no page. */
const isWholePage = (bytes: Uint8Array): boolean =>
  /<!doctype|<html|<head|<body/i.test(decodeText(bytes, 'windows-1252'));

function makeRunPage(path: string, bytes: Uint8Array, hash: string): SiteFile {
  const encoding = pageEncoding(bytes);
  const text = decodeText(bytes, encoding);
  const back = encodeText(text, encoding);
  const file = { path, hash, size: bytes.length, encoding, isRun: true } as const;
  return back && sameBytes(back, bytes) ? new TextPage(file, text) : { ...file, kind: 'page', bytes };
}

/**
 * What a page or sheet becomes by writing another text in an encoding. Where its bytes still say that encoding and can hold nothing else,
 * they are not read back.
 */
export function makeWrittenFile(of: SiteFile, text: string, bytes: Uint8Array, encoding: string): SiteFile {
  const { path, kind, isRun } = of;
  if (isRun) return makeRunPage(path, bytes, contentHash(bytes));
  if (kind !== 'page' || encoding !== 'utf-8' || /\p{Surrogate}/u.test(text) || pageEncoding(bytes) !== encoding)
    return makeSiteFile(path, bytes);
  return new TextPage({ path, hash: contentHash(bytes), size: bytes.length, encoding }, text);
}

export function makeSite(
  files: Iterable<readonly [path: string, bytes: Uint8Array]>,
  pageTypes?: ReadonlySet<string>,
): Site {
  const map = new Map<string, SiteFile>();
  for (const [path, bytes] of files) map.set(path, makeSiteFile(path, bytes, pageTypes));
  return pageTypes ? { files: map, pageTypes } : { files: map };
}

/** The pages that can be read, in path order (`/` before letters is the order people see in a folder list). */
export function pagesOf(site: Site): readonly SiteFile[] {
  return [...site.files.values()].filter((file) => file.kind === 'page').sort(byPath);
}

export function sheetsOf(site: Site): readonly SiteFile[] {
  return [...site.files.values()].filter((file) => file.kind === 'sheet').sort(byPath);
}

/** Files of a folder before its subfolders, each by code unit. */
export function byPath(a: { readonly path: string }, b: { readonly path: string }): number {
  const left = a.path.split('/');
  const right = b.path.split('/');
  for (let i = 0; ; i++) {
    const leafLeft = i === left.length - 1;
    const leafRight = i === right.length - 1;
    if (leafLeft !== leafRight) return leafLeft ? -1 : 1;
    if (left[i] !== right[i]) return left[i]! < right[i]! ? -1 : 1;
    if (leafLeft) return 0;
  }
}
