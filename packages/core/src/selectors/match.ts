/** No, in some states only, yes: 0, 1, 2. Both = the smaller, either = the larger, not = 2 − x. */
export type Match = 0 | 1 | 2;

export interface MatchContext {
  /** Quirks mode: class and ID names ignore ASCII case. */
  readonly quirks: boolean;
  /** `any`: state pseudo-classes answer 1. `rest`: nothing hovered, focused, visited or changed since loading. */
  readonly state: 'any' | 'rest';
}
