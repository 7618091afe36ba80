import { parseFile, type PageTree } from '../page/parsePage.ts';
import type { SiteFile } from '../source/site.ts';
import { namesOf } from './pageReading.ts';

const known = new WeakMap<SiteFile, ReadonlySet<string>>();

/**
 * Types, classes and IDs of a page's elements, in lower case, as parsing its own bytes gives them: what operations carry along of a
 * page is not trusted here. `tree`: where it was parsed already.
 */
export function elementNames(file: SiteFile, tree?: PageTree): ReadonlySet<string> {
  let names = known.get(file);
  if (!names) known.set(file, (names = namesOf((tree ?? parseFile(file)).elements)));
  return names;
}
