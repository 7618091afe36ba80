import type { Interner } from '../cascade/interner.ts';
import type { PageTree } from '../page/parsePage.ts';
import { NameSet, type SomeNames } from '../survey/nameSet.ts';
import { marksOf, type MarkedName } from '../survey/selectorNames.ts';

/** The classes and IDs of a page, and its tags: what checks keep of a page in place of its tree. */
export interface PageMarks {
  /** In the order of the page. */
  readonly names: SomeNames;
  /** Where an element has a name first. */
  readonly startOf: (name: MarkedName) => number | undefined;
  /** In lower case. */
  readonly tags: SomeNames;
  /** In quirks mode names count in any case. */
  readonly has: (name: MarkedName) => boolean;
}

export function pageMarks({ mode, elements }: PageTree, interner: Interner): PageMarks {
  const first = new Map<MarkedName, number>();
  const tags = new Set<string>();
  for (const element of elements) {
    tags.add(element.tag.toLowerCase());
    for (const name of marksOf(element)) if (!first.has(name)) first.set(name, element.start);
  }
  const names = new NameSet(interner, first.keys());
  const starts = Int32Array.from(first.values());
  const folded =
    mode === 'quirks'
      ? new NameSet(
          interner,
          [...names].map((name) => name.toLowerCase()),
        )
      : undefined;
  return {
    names,
    startOf: (name) => starts[names.indexOf(name)],
    tags: new NameSet(interner, tags),
    has: (name) => (folded ? folded.has(name.toLowerCase()) : names.has(name)),
  };
}
