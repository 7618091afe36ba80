import type { ElementNode } from '../page/nodes.ts';
import { matchSelector } from '../selectors/matchSelector.ts';
import { compareSpecificity, type Specificity } from '../selectors/selector.ts';
import { isOutsideAll } from '../values/longhands.ts';
import type { CompiledDeclaration, Condition } from './compiledRule.ts';
import { conditionsHold } from './conditions.ts';
import type { Environment } from './environment.ts';
import { hintDeclarations } from './hints.ts';
import { styleAttributeOf } from './matchElement.ts';
import type { PageCascade } from './pageCascade.ts';
import type { RuleSource } from './pageRules.ts';
import { attributeRank, orderDeclarations, type StackSource } from './stack.ts';

/** A declaration in play for one longhand of one element, with all that decides its place. */
export interface Contender {
  readonly compiled: CompiledDeclaration;
  readonly origin: 'rule' | 'attribute' | 'hint';
  /** Where the rule stands; undefined for a style attribute or a hint. */
  readonly source: RuleSource | undefined;
  /** The selector that reaches the element, as written. */
  readonly selector: string | undefined;
  readonly specificity: Specificity;
  readonly layerRank: number;
  /** Order of appearance among the page's rules. */
  readonly order: number;
  readonly conditions: readonly Condition[];
  /** False when it does not apply in the environment asked for, or may not. */
  readonly applies: boolean;
}

/**
 * The declarations of one longhand on an element or pseudo-element (`::before`; '' for the element), strongest first.
 * Invalid ones are left out; ones that do not apply in the environment are there with `applies: false`.
 * The first that applies wins. Nothing hovered, focused or visited.
 */
export function contendersFor(
  page: PageCascade,
  element: ElementNode,
  longhand: string,
  environment: Environment,
  pseudoElement = '',
): readonly Contender[] {
  return allContenders(page, element, environment, pseudoElement).filter(({ compiled }) => touches(compiled, longhand));
}

function touches(compiled: CompiledDeclaration, longhand: string): boolean {
  if (compiled.declaration.property === 'all') return !isOutsideAll(longhand);
  return compiled.longhands.includes(longhand);
}

/** The same for all longhands at once. */
export function allContenders(
  page: PageCascade,
  element: ElementNode,
  environment: Environment,
  pseudoElement = '',
): readonly Contender[] {
  const sources: (StackSource & Omit<Contender, 'compiled'>)[] = [];
  const base = page.rules.sources.base;
  if (pseudoElement === '') {
    const hints = hintDeclarations(element);
    if (hints.length > 0) sources.push(plain(hintBlock(page, hints), 'hint', -1));
  }
  const orders = new Map(page.rules.rules.map((rule, i) => [rule, i]));
  for (const { indexed } of page.matched(element)) {
    if (indexed.pseudoElement !== pseudoElement) continue;
    const { rule, selector, layerRank } = indexed;
    const rest = matchSelector(element, selector, { quirks: page.quirks, state: 'rest' });
    sources.push({
      block: rule.compiled.block,
      pseudoElement,
      condition: '',
      mark: '',
      origin: 'rule',
      source: rule.source,
      selector: selector.text,
      specificity: selector.specificity,
      layerRank,
      order: orders.get(rule)!,
      conditions: rule.conditions,
      applies: rest === 2 && conditionsHold(rule.conditions, environment) === true,
    });
  }
  const attribute = pseudoElement === '' ? styleAttributeOf(element) : undefined;
  if (attribute !== undefined)
    sources.push(plain(page.session.sheets.styleAttribute(attribute, base), 'attribute', attributeRank));
  return orderDeclarations(sources)
    .reverse()
    .filter(({ compiled }) => compiled.validity !== 'invalid' && (compiled.validity !== 'quirks' || page.quirks))
    .map(({ source, compiled }) => {
      const { origin, source: place, selector, specificity, layerRank, order, conditions, applies } = sources[source]!;
      return { compiled, origin, source: place, selector, specificity, layerRank, order, conditions, applies };
    });
}

function plain(
  block: StackSource['block'],
  origin: 'attribute' | 'hint',
  layerRank: number,
): StackSource & Omit<Contender, 'compiled'> {
  const specificity: Specificity = [0, 0, 0];
  const common = { source: undefined, selector: undefined, specificity, order: -1, conditions: [], applies: true };
  return { block, pseudoElement: '', condition: '', mark: '', origin, layerRank, ...common };
}

function hintBlock(page: PageCascade, hints: readonly string[]): StackSource['block'] {
  return page.session.sheets.styleAttribute(hints.join(';'), page.rules.sources.base);
}

/** The declaration that decides a longhand, or undefined when no author declaration does. */
export function winnerFor(
  page: PageCascade,
  element: ElementNode,
  longhand: string,
  environment: Environment,
  pseudoElement = '',
): Contender | undefined {
  return contendersFor(page, element, longhand, environment, pseudoElement).find((c) => c.applies);
}

/** Which criterion of the cascade puts one contender above another. */
export type Criterion =
  | { readonly kind: 'importance' }
  | { readonly kind: 'attribute' }
  | { readonly kind: 'hint' }
  | { readonly kind: 'layer' }
  | { readonly kind: 'specificity'; readonly winner: Specificity; readonly loser: Specificity }
  | { readonly kind: 'order' };

/** CSS Cascading and Inheritance Level 5, "Cascade Sorting Order". */
export function decidingCriterion(winner: Contender, loser: Contender): Criterion {
  if (winner.compiled.declaration.important !== loser.compiled.declaration.important) return { kind: 'importance' };
  if (winner.origin === 'hint' || loser.origin === 'hint') return { kind: 'hint' };
  if (winner.origin === 'attribute' || loser.origin === 'attribute')
    return winner.origin === loser.origin ? { kind: 'order' } : { kind: 'attribute' };
  if (winner.layerRank !== loser.layerRank) return { kind: 'layer' };
  if (compareSpecificity(winner.specificity, loser.specificity) !== 0)
    return { kind: 'specificity', winner: winner.specificity, loser: loser.specificity };
  return { kind: 'order' };
}
