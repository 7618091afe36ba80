import { lowered } from '../source/asciiCase.ts';
import type { ElementNode } from '../page/nodes.ts';
import { parseFile, type PageTree } from '../page/parsePage.ts';
import type { SiteFile } from '../source/site.ts';

const known = new WeakMap<SiteFile, ReadonlySet<string>>();

/** One text for each name over all pages. */
const texts = new Map<string, string>();
const mostTexts = 100_000;

/**
 * Types, classes and IDs of a page's elements, in lower case, as parsing its own bytes gives them: `p`, `.notice`, `#form`. What
 * operations carry along of a page is not trusted here. `tree`: where it was parsed already.
 */
export function elementNames(file: SiteFile, tree?: PageTree): ReadonlySet<string> {
  let names = known.get(file);
  if (!names) known.set(file, (names = namesOf((tree ?? parseFile(file)).elements)));
  return names;
}

/** What is known of a file, if anything. */
export const knownNames = (file: SiteFile): ReadonlySet<string> | undefined => known.get(file);

/** The names as another thread read them from the same bytes. */
export function noteNames(file: SiteFile, names: ReadonlySet<string>): void {
  if (!known.has(file)) known.set(file, new Set([...names].map(oneText)));
}

function namesOf(elements: readonly ElementNode[]): ReadonlySet<string> {
  const names = new Set<string>();
  for (const { tag, id, classes } of elements) {
    names.add(oneText(lowered(tag)));
    if (id !== undefined) names.add(oneText(`#${lowered(id)}`));
    for (const name of classes) names.add(oneText(`.${lowered(name)}`));
  }
  return names;
}

function oneText(name: string): string {
  const text = texts.get(name);
  if (text !== undefined) return text;
  if (texts.size >= mostTexts) texts.clear();
  texts.set(name, name);
  return name;
}
