import { lowered } from '../source/asciiCase.ts';
import { outlineFacts, type ScriptOutline } from '../scripts/pageScripts.ts';
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
  const words = scripts && wordsOfMaking(scripts, site);
  return words && new Set([...[...names].map((name) => name.replace(/^[.#]/, '')), ...words]);
}

const knownWords = new WeakMap<
  ScriptOutline,
  { readonly site: Site; readonly words: ReadonlySet<string> | undefined }
>();

/** All that scripts say where one of them makes elements or gives them names, in lower case; undefined where none does. */
export function wordsOfMaking(scripts: ScriptOutline, site: Site): ReadonlySet<string> | undefined {
  const before = knownWords.get(scripts);
  if (before?.site === site) return before.words;
  const facts = outlineFacts(scripts, site);
  const words = facts.some(({ makes }) => makes)
    ? new Set(facts.flatMap((one) => [...one.words].map((word) => lowered(word))))
    : undefined;
  knownWords.set(scripts, { site, words });
  return words;
}
