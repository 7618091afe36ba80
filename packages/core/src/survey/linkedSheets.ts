import { pagesOf, sheetsOf, type Site, type SiteFile } from '../source/site.ts';
import type { Target } from '../values/urls.ts';
import { readingOf } from './pageReading.ts';
import { SheetReader } from './sheetReader.ts';
import type { SheetSurvey } from './survey.ts';

/** The sheets of a site with the pages that take rules from them. */
export function linkedSheets(site: Site): readonly SheetSurvey[] {
  const reader = new SheetReader(site);
  const pages = new Map<string, string[]>();
  for (const file of pagesOf(site))
    for (const path of takenBy(file, reader)) {
      const list = pages.get(path);
      if (list) list.push(file.path);
      else pages.set(path, [file.path]);
    }
  return sheetsOf(site).map(({ path, size }) => ({
    path,
    bytes: size,
    rules: reader.read(path)?.rules ?? 0,
    pages: pages.get(path) ?? [],
  }));
}

/** What the links and blocks of a page ask for, with what these import; a source that is not here has its problem. */
export const takenSources = (file: SiteFile, reader: SheetReader): ReturnType<SheetReader['withImports']> =>
  targetsOf(file).flatMap((target) => reader.withImports(target, '', 'linked'));

function takenBy(file: SiteFile, reader: SheetReader): ReadonlySet<string> {
  return new Set(
    takenSources(file, reader).flatMap(({ target, problem }) =>
      problem === undefined && target !== undefined ? [target] : [],
    ),
  );
}

/** What the page's links and the imports of its blocks ask for. */
function targetsOf(file: SiteFile): readonly Target[] {
  const page = readingOf(file);
  const links = page?.sources.flatMap((s) => (s.kind === 'linked' && s.idle === undefined ? [s.target] : [])) ?? [];
  const imports = page?.blocks.flatMap((block) => (block.source.idle === undefined ? block.imports : [])) ?? [];
  return [...links, ...imports];
}
