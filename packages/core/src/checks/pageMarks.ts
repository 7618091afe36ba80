import type { PageTree } from '../page/parsePage.ts';
import { marksOf, type MarkedName } from '../survey/selectorNames.ts';

/** The classes and IDs of a page, each with where an element has it first, and its tags: what checks keep of a page in place of its tree. */
export interface PageMarks {
  readonly names: ReadonlyMap<MarkedName, number>;
  /** In lower case. */
  readonly tags: ReadonlySet<string>;
  readonly quirks: boolean;
  /** In quirks mode names count in any case. */
  readonly has: (name: MarkedName) => boolean;
}

/** One text for each name over all pages. */
export type NameTable = Map<MarkedName, MarkedName>;

export function pageMarks({ mode, elements }: PageTree, table: NameTable): PageMarks {
  const names = new Map<MarkedName, number>();
  const tags = new Set<string>();
  for (const element of elements) {
    tags.add(element.tag.toLowerCase());
    for (const written of marksOf(element)) {
      if (names.has(written)) continue;
      let name = table.get(written);
      if (name === undefined) table.set(written, (name = written));
      names.set(name, element.start);
    }
  }
  const quirks = mode === 'quirks';
  const folded = quirks ? new Set([...names.keys()].map((name) => name.toLowerCase())) : undefined;
  return { names, tags, quirks, has: (name) => (folded ? folded.has(name.toLowerCase()) : names.has(name)) };
}
