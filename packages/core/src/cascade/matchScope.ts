import type { ElementNode } from '../page/nodes.ts';
import { parentElement } from '../page/parsePage.ts';
import type { Match, MatchContext } from '../selectors/match.ts';
import { matchList, matchSelector } from '../selectors/matchSelector.ts';
import type { ComplexSelector } from '../selectors/selector.ts';
import type { ScopeRange } from './compiledRule.ts';

export interface ScopedMatch {
  readonly match: Match;
  /** Steps from the scoping root down to the element; fewer are stronger. */
  readonly proximity: number;
}

/**
 * Matches a selector inside `@scope` rules: the nearest scoping root from which it reaches the element counts.
 *
 * CSS Cascading and Inheritance Level 6, "Scoping Styles: the @scope rule" and "Cascade Sorting Order" (scoping proximity).
 */
export function matchScoped(
  element: ElementNode,
  selector: ComplexSelector,
  scopes: readonly ScopeRange[],
  owner: ElementNode | undefined,
  context: MatchContext,
): ScopedMatch {
  const [range, ...inner] = scopes;
  if (!range) return { match: matchSelector(element, selector, context), proximity: Infinity };
  let best: ScopedMatch = { match: 0, proximity: Infinity };
  let sure = true;
  let steps = 0;
  for (
    let root: ElementNode | undefined = element;
    root;
    root = root === context.scope ? undefined : parentElement(root), steps++
  ) {
    const rooted = isRoot(root, range, owner, context);
    if (rooted === 0) continue;
    const inside: MatchContext = { ...context, scope: root };
    const free = (2 - limited(element, root, range, inside)) as Match;
    if (rooted === 1 || free === 1) sure = false;
    const found = matchScoped(element, selector, inner, owner, inside);
    const match = Math.min(rooted, free, found.match) as Match;
    const proximity = inner.length > 0 ? found.proximity : steps;
    if (match > best.match || (match === best.match && match > 0 && proximity < best.proximity))
      best = { match, proximity };
  }
  // a root or limit that depends on a state may move the scope
  return sure || best.match < 2 ? best : { ...best, match: 1 };
}

function isRoot(root: ElementNode, range: ScopeRange, owner: ElementNode | undefined, context: MatchContext): Match {
  if (range.start) return matchList(root, range.start, context);
  if (owner) return root === owner ? 2 : 0;
  return parentElement(root) ? 0 : 2;
}

/** Whether a limit stands between the root and the element, the element itself included. */
function limited(element: ElementNode, root: ElementNode, range: ScopeRange, context: MatchContext): Match {
  if (!range.limit) return 0;
  let best: Match = 0;
  for (let at: ElementNode | undefined = element; at; at = parentElement(at)) {
    const match = matchList(at, range.limit, context);
    if (match > best) best = match;
    if (at === root) break;
  }
  return best;
}
