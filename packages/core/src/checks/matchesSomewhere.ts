import type { MatchContext } from '../selectors/match.ts';
import { matchSelector } from '../selectors/matchSelector.ts';
import type { ComplexSelector } from '../selectors/selector.ts';
import type { CheckedPage } from './check.ts';
import { selectorsOf } from '../survey/selectorNames.ts';

/** Whether a selector list may match an element of the page in some state. */
export function matchesSomewhere(page: CheckedPage, selector: string): boolean {
  const list = selectorsOf(selector);
  if (!list) return false;
  const context: MatchContext = { quirks: page.tree.mode === 'quirks', state: 'any' };
  const marks = marksOfPage(page);
  return list.some(
    (one) =>
      mayStand(one, marks, context.quirks) &&
      page.tree.elements.some((element) => matchSelector(element, one, context) > 0),
  );
}

const memo = new WeakMap<CheckedPage, ReadonlySet<string>>();

/** Classes, IDs and tags of a page, to rule selectors out without walking it. */
export function marksOfPage(page: CheckedPage): ReadonlySet<string> {
  let known = memo.get(page);
  if (!known) {
    const marks = new Set<string>();
    const fold = page.tree.mode === 'quirks' ? (name: string) => name.toLowerCase() : (name: string) => name;
    for (const { tag, id, classes } of page.tree.elements) {
      marks.add(tag.toLowerCase());
      if (id !== undefined) marks.add(`#${fold(id)}`);
      for (const name of classes) marks.add(`.${fold(name)}`);
    }
    memo.set(page, (known = marks));
  }
  return known;
}

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
