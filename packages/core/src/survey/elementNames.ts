import { Interner } from '../cascade/interner.ts';
import { lowered } from '../source/asciiCase.ts';
import type { ElementNode } from '../page/nodes.ts';
import { parseFile, type PageTree } from '../page/parsePage.ts';
import type { SiteFile } from '../source/site.ts';
import { NameSet, type SomeNames } from './nameSet.ts';

const known = new WeakMap<SiteFile, NameSet>();

/** That of all pages read lately; one that grew large is let go together with its pages. */
let interner = new Interner();
const mostNames = 100_000;

/**
 * Types, classes and IDs of a page's elements, in lower case, as parsing its own bytes gives them: `p`, `.notice`, `#form`. What
 * operations carry along of a page is not trusted here. `tree`: where it was parsed already.
 */
export function elementNames(file: SiteFile, tree?: PageTree): NameSet {
  let names = known.get(file);
  if (!names) known.set(file, (names = makeNames(namesOf((tree ?? parseFile(file)).elements))));
  return names;
}

/** What is known of a file, if anything. */
export const knownNames = (file: SiteFile): SomeNames | undefined => known.get(file);

/** The names as another thread read them from the same bytes. */
export function noteNames(file: SiteFile, names: Iterable<string>): void {
  if (!known.has(file)) known.set(file, makeNames(names));
}

function makeNames(names: Iterable<string>): NameSet {
  if (interner.size >= mostNames) interner = new Interner();
  return new NameSet(interner, names);
}

function* namesOf(elements: readonly ElementNode[]): Iterable<string> {
  for (const { tag, id, classes } of elements) {
    yield lowered(tag);
    if (id !== undefined) yield `#${lowered(id)}`;
    for (const name of classes) yield `.${lowered(name)}`;
  }
}
