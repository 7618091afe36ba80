import { pagesOf, type Site } from '../source/site.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import { resolveReference, siteBase } from '../values/urls.ts';
import { readingOf } from './pageReading.ts';

/** A sheet that pages ask for and the site has not. */
export interface MissingSheet {
  readonly path: string;
  readonly pages: readonly string[];
}

/** Sheets asked for by links and imports, in path order, each with the pages that ask for it. */
export function missingSheets(site: Site): readonly MissingSheet[] {
  const pages = new Map<string, Set<string>>();
  const ask = (path: string, page: string): void => {
    const known = pages.get(path);
    if (known) known.add(page);
    else pages.set(path, new Set([page]));
  };
  for (const file of pagesOf(site)) {
    const reading = readingOf(file);
    const seen = new Set<string>();
    const look = (path: string): void => {
      if (seen.has(path)) return;
      seen.add(path);
      const sheet = site.files.get(path);
      if (!sheet) ask(path, file.path);
      if (sheet?.text === undefined || sheet.kind !== 'sheet') return;
      for (const rule of parseSheet(sheet.text).rules) {
        const target = rule.kind === 'import' ? resolveReference(rule.reference, siteBase(path)) : undefined;
        if (target?.kind === 'site') look(target.path);
      }
    };
    for (const source of reading?.sources ?? [])
      if (source.kind === 'linked' && source.idle === undefined && source.target.kind === 'site') look(source.target.path); // prettier-ignore
    for (const block of reading?.blocks ?? [])
      for (const target of block.imports) if (target.kind === 'site') look(target.path);
  }
  return [...pages].map(([path, on]) => ({ path, pages: [...on] })).sort((a, b) => (a.path < b.path ? -1 : 1));
}
