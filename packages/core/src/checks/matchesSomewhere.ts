import type { MatchContext } from '../selectors/match.ts';
import { matchSelector } from '../selectors/matchSelector.ts';
import type { PageTree } from '../page/parsePage.ts';
import type { PageMarks } from './pageMarks.ts';
import { selectorsOf } from '../survey/selectorNames.ts';

/** Whether a selector list may match an element of the page in some state. */
export function matchesSomewhere(tree: PageTree, selector: string): boolean {
  const context: MatchContext = { quirks: tree.mode === 'quirks', state: 'any' };
  return (selectorsOf(selector) ?? []).some((one) =>
    tree.elements.some((element) => matchSelector(element, one, context) > 0),
  );
}

/** False only when no element of a page with these marks can match the selector list. */
export const mayStandOn = (selector: string, marks: PageMarks): boolean =>
  (selectorsOf(selector) ?? []).some(({ compounds }) =>
    compounds.every(({ simples }) =>
      simples.every((s) => {
        if (s.kind === 'class') return marks.has(`.${s.name}`);
        if (s.kind === 'id') return marks.has(`#${s.name}`);
        return s.kind !== 'type' || marks.tags.has(s.lower);
      }),
    ),
  );
