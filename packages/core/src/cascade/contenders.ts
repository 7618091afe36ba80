import type { MatchedSelector } from './indexedSelector.ts';
import type { ElementNode } from '../page/nodes.ts';
import type { ForcedStates } from '../selectors/match.ts';
import type { Specificity } from '../selectors/selector.ts';
import { isLikelyKept } from '../values/declarationValidity.ts';
import { isOutsideAll } from '../values/longhands.ts';
import type { CompiledBlock, CompiledDeclaration, CompiledRule, Condition } from './compiledRule.ts';
import { conditionsHold } from './conditions.ts';
import type { Environment } from './environment.ts';
import { hintsOf, hintText, type Hint } from './hints.ts';
import { baseAt } from '../page/styleSources.ts';
import { styleAttributeOf } from './matchElement.ts';
import type { PageCascade } from './pageCascade.ts';
import type { RuleSource } from './pageRules.ts';
import { attributeRank, hintRank, orderDeclarations, type StackSource } from './stack.ts';

/** A declaration in play for one longhand of one element, with all that decides its place. */
export interface Contender {
  readonly compiled: CompiledDeclaration;
  readonly origin: 'rule' | 'attribute' | 'hint';
  /** Where the rule stands; undefined for a style attribute or a hint. */
  readonly source: RuleSource | undefined;
  /** The rule it stands in; undefined for a style attribute or a hint. */
  readonly rule: CompiledRule | undefined;
  /** The selector that reaches the element, as written. */
  readonly selector: string | undefined;
  readonly specificity: Specificity;
  readonly layerRank: number;
  /** Steps from the `@scope` root; infinite outside scopes. */
  readonly proximity: number;
  /** Order of appearance among the page's rules. */
  readonly order: number;
  readonly conditions: readonly Condition[];
  /** False when it does not apply in the environment asked for, or may not. */
  readonly applies: boolean;
  /** The presentational attribute it stands for. */
  readonly hint: Hint | undefined;
}

/** How a page is looked at: the environment, and states held on. */
export interface View {
  readonly environment: Environment;
  readonly forced?: ForcedStates | undefined;
  /** Declarations taken away from the view. */
  readonly without?: ((contender: Contender, page: string, element: ElementNode) => boolean) | undefined;
}

type Source = StackSource & Omit<Contender, 'compiled' | 'hint'> & { readonly hints?: readonly Hint[] };

export function touches(compiled: CompiledDeclaration, longhand: string): boolean {
  if (compiled.declaration.property === 'all') return !isOutsideAll(longhand);
  return compiled.longhands.includes(longhand);
}

/**
 * The declarations on an element or pseudo-element (`::before`; '' for the element), strongest first; of those that touch a longhand
 * the first that applies wins. Invalid ones are left out; ones that do not apply in the view, by state or condition, are there with
 * `applies: false`. Nothing hovered, focused or visited unless held on.
 */
export function allContenders(
  page: PageCascade,
  element: ElementNode,
  view: View,
  pseudoElement = '',
): readonly Contender[] {
  const now = new Set(page.matchedAtRest(element, view.forced).map((m) => m.indexed));
  const matched = page.matched(element).filter((m) => m.indexed.pseudoElement === pseudoElement);
  const sources = ruleSources(
    matched,
    (m) => now.has(m.indexed) && conditionsHold(m.indexed.rule.conditions, view.environment) === true,
  );
  return order(page, element, sources, pseudoElement);
}

/** Those that apply, strongest first. */
export function applyingContenders(
  page: PageCascade,
  element: ElementNode,
  view: View,
  pseudoElement = '',
): readonly Contender[] {
  const matched = page
    .matchedAtRest(element, view.forced)
    .filter(
      (m) =>
        m.indexed.pseudoElement === pseudoElement &&
        conditionsHold(m.indexed.rule.conditions, view.environment) === true,
    );
  const { without } = view;
  const all = contendersAmong(page, element, matched, pseudoElement);
  return without ? all.filter((one) => !without(one, page.path, element)) : all;
}

/** The declarations of these rules, of the style attribute and the presentational attributes, strongest first. */
export const contendersAmong = (
  page: PageCascade,
  element: ElementNode,
  matched: readonly MatchedSelector[],
  pseudoElement: string,
): readonly Contender[] =>
  order(
    page,
    element,
    ruleSources(matched, () => true),
    pseudoElement,
  );

function ruleSources(matched: readonly MatchedSelector[], applies: (m: MatchedSelector) => boolean): Source[] {
  return matched.map((m) => {
    const { rule, selector, layerRank, order: place, pseudoElement } = m.indexed;
    return {
      block: rule.compiled.block,
      pseudoElement,
      condition: '',
      mark: '',
      origin: 'rule',
      source: rule.source,
      rule: rule.compiled,
      selector: selector.text,
      specificity: selector.specificity,
      layerRank,
      proximity: m.proximity,
      order: place,
      conditions: rule.conditions,
      applies: applies(m),
    };
  });
}

function order(page: PageCascade, element: ElementNode, rules: Source[], pseudoElement: string): readonly Contender[] {
  const sources: Source[] = [];
  if (pseudoElement === '') {
    const hints = hintsOf(element);
    if (hints.length > 0)
      sources.push({ ...plain(attributeBlock(page, element, hintText(hints)), 'hint', hintRank), hints });
  }
  sources.push(...rules);
  const attribute = pseudoElement === '' ? styleAttributeOf(element) : undefined;
  if (attribute !== undefined)
    sources.push(plain(attributeBlock(page, element, attribute), 'attribute', attributeRank));
  // Chromium reads the style attributes of all but HTML elements in quirks mode
  const attributeQuirks = page.quirks || element.namespace !== 'html';
  const out: Contender[] = [];
  for (const { source, compiled } of orderDeclarations(sources).reverse()) {
    const { property, value } = compiled.declaration;
    const quirks = sources[source]!.origin === 'attribute' ? attributeQuirks : page.quirks;
    if (compiled.validity !== 'valid' && !isLikelyKept(property, value, quirks)) continue;
    const {
      origin,
      source: place,
      rule,
      selector,
      specificity,
      layerRank,
      proximity,
      order,
      conditions,
      applies,
      hints,
      block,
    } = sources[source]!;
    const hint = hints?.[block.declarations.indexOf(compiled)];
    out.push({
      compiled,
      origin,
      source: place,
      rule,
      selector,
      specificity,
      layerRank,
      proximity,
      order,
      conditions,
      applies,
      hint,
    });
  }
  return out;
}

function plain(block: CompiledBlock, origin: 'attribute' | 'hint', layerRank: number): Source {
  const common = { source: undefined, rule: undefined, selector: undefined, order: -1, conditions: [], applies: true };
  return {
    block,
    pseudoElement: '',
    condition: '',
    mark: '',
    origin,
    layerRank,
    specificity: [0, 0, 0],
    proximity: Infinity,
    ...common,
  };
}

const attributeBlock = (page: PageCascade, element: ElementNode, text: string): CompiledBlock =>
  page.session.sheets.styleAttribute(text, baseAt(page.rules.sources, element));
