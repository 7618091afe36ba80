import { outlineFacts } from '../scripts/pageScripts.ts';
import type { Site } from '../source/site.ts';
import type { PageReading } from './pageReading.ts';

const known = new WeakMap<Site, WeakMap<PageReading, ReadonlySet<string> | null>>();

/**
 * Names that elements may have which scripts of the page make, or give a class or an ID: all the page and its scripts say, bare and
 * in lower case. Undefined where no script makes any.
 */
export function madeNames(page: PageReading, site: Site): ReadonlySet<string> | undefined {
  let ofSite = known.get(site);
  if (!ofSite) known.set(site, (ofSite = new WeakMap()));
  let names = ofSite.get(page);
  if (names === undefined) ofSite.set(page, (names = read(page, site) ?? null));
  return names ?? undefined;
}

function read({ scripts, names }: PageReading, site: Site): ReadonlySet<string> | undefined {
  const facts = scripts && outlineFacts(scripts, site);
  if (!facts?.some(({ makes }) => makes)) return undefined;
  const out = new Set([...names].map((name) => name.replace(/^[.#]/, '')));
  for (const { words } of facts) for (const word of words) out.add(word.toLowerCase());
  return out;
}
