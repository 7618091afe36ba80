import { pagesOf, type Site } from '../source/site.ts';

/** Of a site with fewer pages all are proved at once. */
const fewest = 200;
/** So many pages, spread over the site, and so many of those that made trouble. */
const spread = 40;
const mostSuspects = 200;

/** The pages a plan is tried on before all of a large site are proved; `suspects` first. Undefined where trying would save nothing. */
export function trialPages(site: Site, suspects: Iterable<string>): ReadonlySet<string> | undefined {
  const pages = pagesOf(site);
  if (pages.length < fewest) return undefined;
  return new Set([...[...suspects].slice(0, mostSuspects), ...everyNth(pages, spread).map(({ path }) => path)]);
}

function everyNth<T>(list: readonly T[], count: number): readonly T[] {
  return Array.from({ length: count }, (_, i) => list[Math.floor((i * list.length) / count)]!);
}
