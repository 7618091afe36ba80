import type { ElementNode } from '../page/nodes.ts';
import { parentElement } from '../page/parsePage.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import { siteBase } from '../values/urls.ts';
import { initialValues } from '../values/initialValues.ts';
import { isInherited, isOutsideAll, longhandsForAll } from '../values/longhands.ts';
import { flowOf, slotOf, type Flow } from '../values/logicalSlot.ts';
import { browserDefaults, quirksDefaults } from './browserDefaults.ts';
import { compileSheet } from './compileSheet.ts';
import type { CompiledDeclaration } from './compiledRule.ts';
import { applyingContenders, type Contender, type View } from './contenders.ts';
import { autoDirection } from '../page/autoDirection.ts';
import { LayerOrder } from './layers.ts';
import { matchAtRest } from './matchElement.ts';
import type { PageCascade } from './pageCascade.ts';
import { buildRuleIndex, type RuleIndex } from './ruleIndex.ts';
import { winnersAmong } from './winners.ts';

/** Where the value an element ends up with comes from. */
export type Outcome =
  | { readonly kind: 'declared'; readonly contender: Contender }
  /** A rule of the browser's own. */
  | { readonly kind: 'default'; readonly declaration: CompiledDeclaration; readonly selector: string }
  | { readonly kind: 'inherited'; readonly from: ElementNode; readonly outcome: Outcome }
  | { readonly kind: 'initial'; readonly value: string };

/**
 * What each longhand of a page's elements comes from in one view: declared, the browser's default, inherited or initial.
 *
 * CSS Cascading and Inheritance Level 5, "Defaulting": the keywords `initial`, `inherit`, `unset`, `revert`, `revert-layer`.
 */
export class PageOutcomes {
  private readonly contenders = new Map<string, readonly Contender[]>();
  private readonly flows = new Map<ElementNode, Flow>();
  private readonly keywords = { direction: new Map<ElementNode, string>(), 'writing-mode': new Map<ElementNode, string>() }; // prettier-ignore
  private readonly known = new Map<string, Outcome>();
  private defaultsIndex: RuleIndex | undefined;
  private readonly page: PageCascade;
  private readonly view: View;

  constructor(page: PageCascade, view: View) {
    this.page = page;
    this.view = view;
  }

  /** `longhand` physical or flow-relative; `pseudoElement` as `::before`, or '' for the element. */
  outcomeOf(element: ElementNode, longhand: string, pseudoElement = ''): Outcome {
    const key = `${element.index} ${pseudoElement} ${longhand}`;
    let known = this.known.get(key);
    if (!known) this.known.set(key, (known = this.find(element, longhand, pseudoElement)));
    return known;
  }

  /** How text runs on the element: its `writing-mode` and `direction`. */
  flowOf(element: ElementNode): Flow {
    let known = this.flows.get(element);
    if (!known) {
      const direction = autoDirection(element) ?? this.keyword(element, 'direction');
      known = flowOf(this.keyword(element, 'writing-mode'), direction);
      this.flows.set(element, known);
    }
    return known;
  }

  /** The winner of every longhand in play, see winnersAmong. */
  winnersOf(element: ElementNode, pseudoElement = ''): ReadonlyMap<string, Contender> {
    return winnersAmong(this.contendersOf(element, pseudoElement), this.flowOf(element));
  }

  private keyword(element: ElementNode, longhand: 'direction' | 'writing-mode'): string {
    const auto = longhand === 'direction' ? autoDirection(element) : undefined;
    if (auto !== undefined) return auto;
    const keywords = this.keywords[longhand];
    let known = keywords.get(element);
    if (known === undefined) {
      const outcome = this.ownOutcome(element, longhand, '');
      const parent = parentElement(element);
      if (outcome?.kind === 'declared') known = outcome.contender.compiled.comparable.toLowerCase();
      else known = outcome || !parent ? 'initial' : this.keyword(parent, longhand);
      keywords.set(element, known);
    }
    return known;
  }

  /** The declarations in play, strongest first. */
  contendersOf(element: ElementNode, pseudoElement = ''): readonly Contender[] {
    const key = `${element.index} ${pseudoElement}`;
    let known = this.contenders.get(key);
    if (!known) this.contenders.set(key, (known = applyingContenders(this.page, element, this.view, pseudoElement)));
    return known;
  }

  private find(element: ElementNode, longhand: string, pseudoElement: string): Outcome {
    const own = this.ownOutcome(element, longhand, pseudoElement);
    if (own) return own;
    const from = pseudoElement === '' ? inheritsFrom(element, longhand, this.page.quirks) : element;
    if (!from) return initial(longhand);
    const flow = this.flowOf(element);
    const outcome = this.outcomeOf(from, slotOf(longhand, flow));
    if (outcome.kind === 'inherited' || outcome.kind === 'initial') return outcome;
    return { kind: 'inherited', from, outcome };
  }

  /** Undefined when the value is inherited. */
  private ownOutcome(element: ElementNode, longhand: string, pseudoElement: string): Outcome | undefined {
    const flow = isFlowFree(longhand) ? undefined : this.flowOf(element);
    const slot = flow ? slotOf(longhand, flow) : longhand;
    const reaches = ({ longhands, declaration }: CompiledDeclaration): boolean => {
      const names = declaration.property === 'all' ? (isOutsideAll(slot) ? [] : longhandsForAll) : longhands;
      return names.some((name) => name === slot || (flow !== undefined && slotOf(name, flow) === slot));
    };
    let rest = this.contendersOf(element, pseudoElement).filter((c) => reaches(c.compiled));
    while (rest.length > 0) {
      const first = rest[0]!;
      switch (first.compiled.comparable.toLowerCase()) {
        case 'initial':
          return initial(longhand);
        case 'inherit':
          return undefined;
        case 'unset':
          return isInherited(longhand) ? undefined : initial(longhand);
        case 'revert-layer':
          // layers below, important or not; the style attribute is the top one here and the hints the lowest
          rest = rest.filter((c) => c.layerRank < first.layerRank);
          break;
        case 'revert':
          // Chromium gives cells their padding of 1px as a hint, which goes with the author's declarations
          if (/^t[dh]$/.test(element.tag) && slot.startsWith('padding-')) return initial(longhand);
          rest = [];
          break;
        default:
          return { kind: 'declared', contender: first };
      }
    }
    return this.defaultOutcome(element, longhand, pseudoElement, reaches);
  }

  private defaultOutcome(
    element: ElementNode,
    longhand: string,
    pseudoElement: string,
    reaches: (compiled: CompiledDeclaration) => boolean,
  ): Outcome | undefined {
    let best: { readonly compiled: CompiledDeclaration; readonly selector: string } | undefined;
    if (element.namespace === 'html' || element.namespace === 'svg')
      for (const { indexed } of matchAtRest(element, this.defaults(), this.view.forced)) {
        if (indexed.pseudoElement !== pseudoElement) continue;
        for (const compiled of indexed.rule.compiled.block.declarations)
          if (reaches(compiled) && (!best?.compiled.declaration.important || compiled.declaration.important))
            best = { compiled, selector: indexed.selector.text };
      }
    const value = best?.compiled.comparable;
    if (value === 'inherit' || (!best && isInherited(longhand))) return undefined;
    if (!best || value === 'initial') return initial(longhand);
    return { kind: 'default', declaration: best.compiled, selector: best.selector };
  }

  private defaults(): RuleIndex {
    return (this.defaultsIndex ??= defaultsIndex(this.page));
  }
}

/** Quirks Mode Standard, "The tables inherit color from body quirk". */
function inheritsFrom(element: ElementNode, longhand: string, quirks: boolean): ElementNode | undefined {
  const parent = parentElement(element);
  if (!quirks || longhand !== 'color' || element.tag !== 'table') return parent;
  for (let at = parent; at; at = parentElement(at)) if (at.tag === 'body') return at;
  return parent;
}

const isFlowFree = (longhand: string): boolean => longhand === 'direction' || longhand === 'writing-mode';

const initial = (longhand: string): Outcome => ({ kind: 'initial', value: initialValues[longhand] ?? '' });

const indexes = new Map<boolean, RuleIndex>();

function defaultsIndex({ quirks, rules }: PageCascade): RuleIndex {
  let known = indexes.get(quirks);
  if (!known) {
    const sheet = parseSheet(quirks ? browserDefaults + quirksDefaults : browserDefaults);
    const compiled = compileSheet(sheet, 0, { base: siteBase(''), fingerprint: undefined });
    const source = { kind: 'embedded', path: '', sourceIndex: 0, offset: 0 } as const;
    const applied = compiled.items.flatMap((item) =>
      item.kind === 'rule'
        ? [{ compiled: item, source, conditions: [], conditionKey: '', layerPath: [], unreadBefore: 0 }]
        : [],
    );
    const layers = new LayerOrder();
    const page = { ...rules, rules: applied, definitions: [], layers, unread: [], definesReference: false, key: '' };
    indexes.set(quirks, (known = buildRuleIndex(page, quirks)));
  }
  return known;
}
