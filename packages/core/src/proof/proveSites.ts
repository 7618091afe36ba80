import { CascadeSession } from '../cascade/pageCascade.ts';
import { changedFiles } from '../source/changeSet.ts';
import { pagesOf, sheetsOf, type Site, type SiteFile } from '../source/site.ts';
import { fileKindOf, fileNameOf } from '../source/sitePath.ts';
import { sameBytes } from '../source/textCoding.ts';
import type { PageProof, Proof } from './proof.ts';
import { provePage } from './provePage.ts';

export interface ProofOptions {
  /** Only these pages; all when absent. */
  readonly paths?: ReadonlySet<string>;
  readonly onPage?: (done: number, total: number) => void;
  /** A proof of the same `before` against another state: what holds of pages that are the same in both is taken over. */
  readonly earlier?: { readonly after: Site; readonly proof: Proof } | undefined;
}

/**
 * Compares two states of a site, page by page, by the bytes they hold. A page that neither changed nor names anything that did
 * is the same without being read; its `elements` are 0. Pages that are only on one side are `added` or `removed`.
 */
export function proveSites(before: Site, after: Site, options: ProofOptions = {}): Proof {
  const sessions = makeSessions(before, after);
  const known = options.earlier ? stillTrue(options.earlier.after, after, options.earlier.proof) : undefined;
  const wanted = (file: SiteFile): boolean => options.paths?.has(file.path) ?? true;
  const pages = pagesOf(before).filter(wanted);
  const added = pagesOf(after).filter((file) => !before.files.has(file.path) && wanted(file));
  const results: PageProof[] = [];
  for (const file of pages) {
    results.push(known?.get(file.path) ?? proveFile(before, after, file, sessions));
    options.onPage?.(results.length, pages.length + added.length);
  }
  for (const file of added) results.push({ ...unseen(file.path), verdict: 'added' });
  return {
    verdict: results.every((page) => page.verdict === 'same') ? 'same' : 'differs',
    pages: results,
    elements: results.reduce((sum, page) => sum + page.elements, 0),
  };
}

/** The pages that neither changed since nor can reach anything that did, with what was found. */
function stillTrue(then: Site, now: Site, proof: Proof): ReadonlyMap<string, PageProof> {
  const changed = changedFiles(then, now).map((one) => one.path);
  const others = changed.filter((path) => fileKindOf(path) !== 'page');
  if (others.some((path) => fileKindOf(path) === 'other')) return new Map();
  const mayReach = reachesAny(leadingNames([then, now], others));
  const pages = new Set(changed);
  return new Map(
    proof.pages.flatMap((page) => {
      const text = now.files.get(page.path)?.text;
      const stands = text !== undefined && !pages.has(page.path) && !mayReach(text);
      return stands ? [[page.path, page] as const] : [];
    }),
  );
}

interface Sessions {
  readonly before: CascadeSession;
  readonly after: CascadeSession;
  /** Files that are neither pages nor sheets and whose bytes differ. */
  readonly changedResources: readonly string[];
  readonly changedPaths: ReadonlySet<string>;
  readonly onlyPagesChanged: boolean;
  /** Whether a page's text names a changed file, or a sheet that might lead to one. */
  readonly mayReachChange: (pageText: string) => boolean;
}

function makeSessions(before: Site, after: Site): Sessions {
  const changed = changedFiles(before, after);
  const resources = changed
    .filter(({ path }) => (before.files.get(path) ?? after.files.get(path))!.kind === 'other')
    .map((c) => c.path);
  const kinds = changed.map(({ path }) => (before.files.get(path) ?? after.files.get(path))!.kind);
  const common = {
    changedResources: resources,
    changedPaths: new Set(changed.map((c) => c.path)),
    onlyPagesChanged: kinds.every((kind) => kind === 'page'),
    mayReachChange: reachesAny(
      leadingNames(
        [before, after],
        changed.map((c) => c.path).filter((path) => fileKindOf(path) !== 'page'),
      ),
    ),
  };
  if (resources.length === 0) {
    const session = new CascadeSession();
    return { before: session, after: session, ...common };
  }
  const mark = (site: Site): Map<string, string> =>
    new Map(resources.map((path) => [path, ` ${site.files.get(path)?.hash ?? 'missing'}`]));
  const first = new CascadeSession({ fingerprints: mark(before) });
  return { before: first, after: new CascadeSession({ fingerprints: mark(after), twin: first }), ...common };
}

function proveFile(before: Site, after: Site, file: SiteFile, sessions: Sessions): PageProof {
  const now = after.files.get(file.path);
  if (!now) return { ...unseen(file.path), verdict: 'removed' };
  if (file.text !== undefined && !sessions.changedPaths.has(file.path) && !sessions.mayReachChange(file.text))
    return unseen(file.path);
  if (file.text === undefined || now.text === undefined) return proveOpaque(file, now, sessions);
  const results = [true, ...(/<noscript/i.test(file.text) ? [false] : [])].map((scripting) =>
    provePage(
      { cascade: sessions.before.open(before, file, scripting), site: before },
      { cascade: sessions.after.open(after, now, scripting), site: after },
    ),
  );
  // a page with noscript is two pages: the one that differs speaks
  const result = results.find((r) => r.verdict !== 'same') ?? results[0]!;
  const used = sessions.changedResources.filter((path) => file.text!.includes(fileNameOf(path)));
  if (used.length === 0) return result;
  return {
    ...result,
    verdict: 'differs',
    notes: [...result.notes, ...used.map((path) => `${path}, which the page names, is another file now.`)],
  };
}

/** A page that cannot be read is the same only when neither it nor any sheet changed. */
function proveOpaque(file: SiteFile, now: SiteFile, sessions: Sessions): PageProof {
  const same = sameBytes(file.bytes, now.bytes) && sessions.onlyPagesChanged;
  if (same) return { ...unseen(file.path), verdict: 'same' };
  return {
    ...unseen(file.path),
    verdict: 'differs',
    notes: ['The page does not encode back to its own bytes, so it cannot be compared.'],
  };
}

/** The names of the changed files, and of all sheets that name one of these. Percent escapes make a name unrecognisable: then undefined. */
function leadingNames(sites: readonly Site[], changed: readonly string[]): ReadonlySet<string> | undefined {
  const names = new Set(changed.map(fileNameOf));
  const sheets = sites.flatMap((site) => sheetsOf(site));
  for (let grown = names.size > 0; grown;) {
    grown = false;
    for (const sheet of sheets) {
      const name = fileNameOf(sheet.path);
      if (names.has(name) || ![...names].some((n) => (sheet.text ?? '').includes(n))) continue;
      names.add(name);
      grown = true;
    }
  }
  return [...names].every((name) => /^[\w.-]+$/.test(name)) ? names : undefined;
}

function reachesAny(names: ReadonlySet<string> | undefined): (pageText: string) => boolean {
  // an escape, of CSS, HTML or a URL, could spell a name in another way
  return (text) =>
    names === undefined ||
    [...names].some((name) => text.includes(name)) ||
    (names.size > 0 && /(href|import)[^>;]{0,300}[\\%&]/i.test(text));
}

const unseen = (path: string): PageProof => ({
  path,
  verdict: 'same',
  elements: 0,
  differingElements: 0,
  causes: [],
  notes: [],
});
