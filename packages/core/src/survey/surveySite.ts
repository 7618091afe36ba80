import { pagesOf, sheetsOf, type Site } from '../source/site.ts';
import { BlockCollector } from './blockCollector.ts';
import { openPage } from './openPage.ts';
import { SheetReader } from './sheetReader.ts';
import type { PageSurvey, SheetSurvey, Survey } from './survey.ts';
import { opaquePage, surveyPage } from './surveyPage.ts';

/** The inventory of sources over all pages. */
export function surveySite(site: Site, onPage?: (done: number, total: number) => void): Survey {
  const files = pagesOf(site);
  const sheets = new SheetReader(site);
  const blocks = new BlockCollector();
  const pages = files.map((file, i) => {
    const page = openPage(file);
    onPage?.(i + 1, files.length);
    return page ? surveyPage(page, sheets, blocks) : opaquePage(file);
  });
  return makeSurvey(site, pages, sheets, blocks);
}

/** The inventory, once every page was looked at. */
export function makeSurvey(
  site: Site,
  pages: readonly PageSurvey[],
  sheets: SheetReader,
  blocks: BlockCollector,
): Survey {
  const otherFiles = [...site.files.values()].filter((file) => file.kind === 'other').length;
  const linking = pagesByTarget(pages);
  return {
    pages,
    sheets: sheetsOf(site).map(({ path, size }): SheetSurvey => ({
      path,
      bytes: size,
      rules: sheets.read(path)?.rules ?? 0,
      pages: linking.get(path) ?? [],
    })),
    repeatedBlocks: blocks.repeated(),
    otherFiles,
    repeatedBytes: blocks.repeatedBytes(),
  };
}

/** The pages that ask for each file, and get it. */
function pagesByTarget(pages: readonly PageSurvey[]): ReadonlyMap<string, readonly string[]> {
  const linking = new Map<string, string[]>();
  for (const { path, sources } of pages)
    for (const target of new Set(
      sources.flatMap((s) => (s.problem === undefined && s.target !== undefined ? [s.target] : [])),
    )) {
      const known = linking.get(target);
      if (known) known.push(path);
      else linking.set(target, [path]);
    }
  return linking;
}
