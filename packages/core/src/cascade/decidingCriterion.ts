import { compareSpecificity, type Specificity } from '../selectors/selector.ts';
import type { Contender } from './contenders.ts';

/** Which criterion of the cascade puts one contender above another. */
export type Criterion =
  | { readonly kind: 'importance' }
  | { readonly kind: 'attribute' }
  | { readonly kind: 'hint' }
  | { readonly kind: 'layer' }
  | { readonly kind: 'specificity'; readonly winner: Specificity; readonly loser: Specificity }
  | { readonly kind: 'proximity'; readonly winner: number; readonly loser: number }
  | { readonly kind: 'order' };

/** CSS Cascading and Inheritance Level 6, "Cascade Sorting Order". */
export function decidingCriterion(winner: Contender, loser: Contender): Criterion {
  if (winner.compiled.declaration.important !== loser.compiled.declaration.important) return { kind: 'importance' };
  if (winner.origin === 'hint' || loser.origin === 'hint')
    return winner.origin === loser.origin ? { kind: 'order' } : { kind: 'hint' };
  if (winner.origin === 'attribute' || loser.origin === 'attribute')
    return winner.origin === loser.origin ? { kind: 'order' } : { kind: 'attribute' };
  if (winner.layerRank !== loser.layerRank) return { kind: 'layer' };
  if (compareSpecificity(winner.specificity, loser.specificity) !== 0)
    return { kind: 'specificity', winner: winner.specificity, loser: loser.specificity };
  if (winner.proximity !== loser.proximity)
    return { kind: 'proximity', winner: winner.proximity, loser: loser.proximity };
  return { kind: 'order' };
}
