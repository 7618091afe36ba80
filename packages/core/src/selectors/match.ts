import type { ElementNode } from '../page/nodes.ts';

/** No, in some states only, yes: 0, 1, 2. Both = the smaller, either = the larger, not = 2 − x. */
export type Match = 0 | 1 | 2;

export interface MatchContext {
  /** Quirks mode: class and ID names ignore ASCII case. */
  readonly quirks: boolean;
  /** `any`: state pseudo-classes answer 1. `rest`: nothing hovered, focused, visited or changed since loading. */
  readonly state: 'any' | 'rest';
  /** States held on, by element: `hover`, `focus`, … Only with `rest`. */
  readonly forced?: ForcedStates | undefined;
  /** What `:scope` and `&` stand for inside `@scope`; the root element elsewhere. */
  readonly scope?: ElementNode | undefined;
}

/** Names of state pseudo-classes (`hover`) held on, by element. */
export type ForcedStates = ReadonlyMap<ElementNode, ReadonlySet<string>>;
