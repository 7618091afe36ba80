import { pagesOf, sheetsOf, type Site } from '../source/site.ts';
import { openPage } from '../survey/openPage.ts';
import type { Survey } from '../survey/survey.ts';
import { unitsOfSheet } from '../survey/unitsOfSheet.ts';

/** A page that holds styling of its own where it should not, and how much. */
export interface HoldingPage {
  readonly page: string;
  readonly blocks: number;
  readonly styleAttributes: number;
  /** Rules of its blocks that a sheet of the site has as well, by selector. */
  readonly gatheredBefore: readonly string[];
}

/**
 * Pages that hold styling which was gathered before: a rule whose selector and conditions a linked sheet has too; and, where
 * more than half of the pages hold none at all, every page that does.
 */
export function stillHolding(site: Site, survey: Survey): readonly HoldingPage[] {
  const linked = new Set(survey.sheets.filter((s) => s.pages.length > 0).map((s) => s.path));
  const families = new Set(
    sheetsOf(site)
      .filter((s) => linked.has(s.path))
      .flatMap((file) => [...unitsOfSheet(file)].map((unit) => unit.split('\n')[0]!)),
  );
  const bare = survey.pages.filter((page) => !page.opaque && page.localBytes === 0).length;
  const isGathered = linked.size > 0 && bare * 2 > survey.pages.length;
  return pagesOf(site).flatMap((file) => {
    const page = openPage(file);
    const counted = survey.pages.find((one) => one.path === file.path);
    if (!page || !counted) return [];
    const blocks = page.blocks.filter((block) => block.source.idle === undefined && block.units.length > 0);
    const before = new Set(
      blocks.flatMap((b) => b.units.filter((unit) => families.has(unit.family)).map((u) => u.label)),
    );
    const holds = blocks.length > 0 || counted.styleAttributes > 0;
    if (before.size === 0 && !(isGathered && holds)) return [];
    return [
      { page: file.path, blocks: blocks.length, styleAttributes: counted.styleAttributes, gatheredBefore: [...before] },
    ];
  });
}
