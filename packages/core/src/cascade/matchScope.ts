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
  let roots: ReadonlyMap<ElementNode | undefined, Match> = new Map([[context.scope, 2]]);
  for (const range of scopes) roots = rootsOf(element, range, roots, owner, context);
  let best: ScopedMatch = { match: 0, proximity: Infinity };
  let sure = true;
  let steps = 0;
  for (let root: ElementNode | undefined = element; root; root = parentElement(root), steps++) {
    const rooted = roots.get(root) ?? 0;
    if (rooted === 0) continue;
    if (rooted === 1) sure = false;
    const match = Math.min(rooted, matchSelector(element, selector, { ...context, scope: root })) as Match;
    if (match > best.match) best = { match, proximity: steps };
  }
  // a root or limit that depends on a state may move the scope
  return sure || best.match < 2 ? best : { ...best, match: 1 };
}

/** The scoping roots above the element (itself included) of a range inside the given outer scopes, and how surely they are. */
function rootsOf(
  element: ElementNode,
  range: ScopeRange,
  outer: ReadonlyMap<ElementNode | undefined, Match>,
  owner: ElementNode | undefined,
  context: MatchContext,
): ReadonlyMap<ElementNode | undefined, Match> {
  const above: ElementNode[] = [];
  for (let at: ElementNode | undefined = element; at; at = parentElement(at)) above.push(at);
  const out = new Map<ElementNode | undefined, Match>();
  for (const [root, surely] of outer) {
    const within = { ...context, scope: root };
    for (const inner of above) {
      const known = out.get(inner) ?? 0;
      const rooted = known < surely ? isRoot(inner, range, owner, within) : 0;
      if (rooted > known) {
        const free = 2 - limited(element, inner, range, { ...context, scope: inner });
        out.set(inner, Math.max(known, Math.min(rooted, free, surely)) as Match);
      }
      if (inner === root) break;
    }
  }
  return out;
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
