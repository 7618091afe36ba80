import type { MatchContext } from '../selectors/match.ts';
import { matchSelector } from '../selectors/matchSelector.ts';
import type { ComplexSelector } from '../selectors/selector.ts';
import type { PageTree } from '../page/parsePage.ts';
import { selectorsOf } from '../survey/selectorNames.ts';

/** Whether a selector list may match an element of the page in some state. */
export function matchesSomewhere(tree: PageTree, selector: string): boolean {
  const context: MatchContext = { quirks: tree.mode === 'quirks', state: 'any' };
  return (selectorsOf(selector) ?? []).some((one) =>
    tree.elements.some((element) => matchSelector(element, one, context) > 0),
  );
}

/** Classes, IDs and tags of a page, to rule selectors out without walking it. */
export function marksOfPage({ mode, elements }: PageTree): ReadonlySet<string> {
  const marks = new Set<string>();
  const fold = mode === 'quirks' ? (name: string) => name.toLowerCase() : (name: string) => name;
  for (const { tag, id, classes } of elements) {
    marks.add(tag.toLowerCase());
    if (id !== undefined) marks.add(`#${fold(id)}`);
    for (const name of classes) marks.add(`.${fold(name)}`);
  }
  return marks;
}

/** False only when no element of a page with these marks can match the selector list. */
export const mayStandOn = (selector: string, marks: ReadonlySet<string>, quirks: boolean): boolean =>
  (selectorsOf(selector) ?? []).some((one) => mayStand(one, marks, quirks));

function mayStand({ compounds }: ComplexSelector, marks: ReadonlySet<string>, quirks: boolean): boolean {
  const fold = (name: string): string => (quirks ? name.toLowerCase() : name);
  return compounds.every(({ simples }) =>
    simples.every((s) => {
      if (s.kind === 'class') return marks.has(`.${fold(s.name)}`);
      if (s.kind === 'id') return marks.has(`#${fold(s.name)}`);
      return s.kind !== 'type' || marks.has(s.lower);
    }),
  );
}
