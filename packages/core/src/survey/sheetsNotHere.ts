import { pagesOf, type Site } from '../source/site.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import { resolveReference, siteBase, type Target } from '../values/urls.ts';
import { readingOf } from './pageReading.ts';

/** A sheet that pages ask for and the site has not. */
export interface SheetNotHere {
  /** Its site path, or its address on another server as it is written. */
  readonly path: string;
  readonly isRemote: boolean;
  readonly pages: readonly string[];
}

/** Sheets asked for by links and imports: those of the site in path order, then those on other servers; each with the pages that ask for it. */
export function sheetsNotHere(site: Site): readonly SheetNotHere[] {
  const here = new Map<string, Set<string>>();
  const elsewhere = new Map<string, Set<string>>();
  const ask = (pages: Map<string, Set<string>>, path: string, page: string): void => {
    const known = pages.get(path);
    if (known) known.add(page);
    else pages.set(path, new Set([page]));
  };
  for (const file of pagesOf(site)) {
    const reading = readingOf(file);
    const seen = new Set<string>();
    const look = (target: Target): void => {
      if (target.kind === 'remote') ask(elsewhere, target.url, file.path);
      if (target.kind !== 'site') return;
      const { path } = target;
      if (seen.has(path)) return;
      seen.add(path);
      const sheet = site.files.get(path);
      if (!sheet) ask(here, path, file.path);
      if (sheet?.text === undefined || sheet.kind !== 'sheet') return;
      for (const rule of parseSheet(sheet.text).rules)
        if (rule.kind === 'import') look(resolveReference(rule.reference, siteBase(path)));
    };
    for (const source of reading?.sources ?? [])
      if (source.kind === 'linked' && source.idle === undefined) look(source.target);
    for (const block of reading?.blocks ?? []) for (const target of block.imports) look(target);
  }
  const listed = (pages: Map<string, Set<string>>, isRemote: boolean): readonly SheetNotHere[] =>
    [...pages].map(([path, on]) => ({ path, isRemote, pages: [...on] })).sort((a, b) => (a.path < b.path ? -1 : 1));
  return [...listed(here, false), ...listed(elsewhere, true)];
}
