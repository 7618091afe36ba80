import { pagesOf, type Site, type SiteDecisions } from '../../source/site.ts';

/** A new sheet is meant for the pages that come to link it: the others are left out on purpose. */
export function leftOutOf(site: Site, sheet: string, linking: readonly string[]): SiteDecisions['leftOut'] {
  if (site.files.has(sheet)) return [];
  const linked = new Set(linking);
  return [{ sheet, pages: pagesOf(site).flatMap(({ path }) => (linked.has(path) ? [] : [path])) }];
}
