import type { ElementNode } from '../page/nodes.ts';
import type { Match } from '../selectors/match.ts';
import type { ComplexSelector } from '../selectors/selector.ts';
import type { ScopeRange } from './compiledRule.ts';
import type { AppliedRule } from './pageRules.ts';

/** One complex selector of one applied rule, ready for matching. */
export interface IndexedSelector {
  readonly rule: AppliedRule;
  readonly selector: ComplexSelector;
  readonly pseudoElement: string;
  readonly layerRank: number;
  /** Order of appearance among the page's rules. */
  readonly order: number;
  readonly scopes: readonly ScopeRange[];
  /** The parent of the `style` element, for `@scope` without a start. */
  readonly owner: ElementNode | undefined;
  /** Place in ascending order of strength for normal declarations: layer, specificity, order of appearance. */
  position: number;
  /** Names that stand above whatever it matches: see Ancestry. */
  readonly above: readonly string[];
  /** What tells its entry in a match list from an equal block's: see StackSource. */
  readonly mark: string;
  /** Numbers of what it contributes, once asked for: when it surely matches, and when it matches in some states only. */
  sureId: number | undefined;
  perhapsId: number | undefined;
}

/** A rule that reaches an element through one of its selectors; `match` is 1 when only in some states. */
export interface MatchedSelector {
  readonly indexed: IndexedSelector;
  readonly match: Match;
  /** Steps from the `@scope` root; infinite outside scopes. */
  readonly proximity: number;
}
