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
  return {
    pages,
    sheets: sheetsOf(site).map((file) => surveySheet(file.path, file.bytes.length, pages, sheets)),
    repeatedBlocks: blocks.repeated(),
    otherFiles,
    repeatedBytes: blocks.repeatedBytes(),
  };
}

const surveySheet = (path: string, bytes: number, pages: readonly PageSurvey[], sheets: SheetReader): SheetSurvey => ({
  path,
  bytes,
  rules: sheets.read(path)?.rules ?? 0,
  pages: pages.filter((p) => p.sources.some((s) => s.target === path && s.problem === undefined)).map((p) => p.path),
});
