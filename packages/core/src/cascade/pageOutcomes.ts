import { lowered } from '../source/asciiCase.ts';
import type { ElementNode } from '../page/nodes.ts';
import { autoDirection } from '../page/autoDirection.ts';
import { parentElement } from '../page/parsePage.ts';
import { flowOf, slotOf, type Flow } from '../values/logicalSlot.ts';
import { applyingContenders, type Contender, type View } from './contenders.ts';
import { browserRules, initial, ownOutcome, type BrowserRule, type OwnOutcome } from './ownOutcome.ts';
import type { PageCascade } from './pageCascade.ts';
import { winnersAmong } from './winners.ts';

/** Where the value an element ends up with comes from. */
export type Outcome =
  | OwnOutcome
  | { readonly kind: 'inherited'; readonly from: ElementNode; readonly outcome: Outcome };

/**
 * What each longhand of a page's elements comes from in one view: declared, the browser's default, inherited or initial.
 */
export class PageOutcomes {
  private readonly contenders = new Map<string, readonly Contender[]>();
  private readonly flows = new Map<ElementNode, Flow>();
  private readonly keywords = {
    direction: new Map<ElementNode, string>(),
    'writing-mode': new Map<ElementNode, string>(),
  };
  private readonly known = new Map<string, Outcome>();
  private readonly defaults = new Map<ElementNode, ReadonlyMap<string, readonly BrowserRule[]>>();
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
      if (outcome?.kind === 'declared') known = lowered(outcome.contender.compiled.comparable);
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

  private ownOutcome(element: ElementNode, longhand: string, pseudoElement: string): OwnOutcome | undefined {
    const flow = isFlowFree(longhand) ? undefined : this.flowOf(element);
    const contenders = this.contendersOf(element, pseudoElement);
    return ownOutcome(
      { tag: element.tag, contenders, defaults: this.defaultsOf(element, pseudoElement), flow },
      longhand,
    );
  }

  /** The browser's own rules that reach it, weakest first. */
  defaultsOf(element: ElementNode, pseudoElement = ''): readonly BrowserRule[] {
    let known = this.defaults.get(element);
    if (!known) this.defaults.set(element, (known = browserRules(element, this.page, this.view.forced)));
    return known.get(pseudoElement) ?? [];
  }
}

/** Quirks Mode Standard, "The tables inherit color from body quirk". */
export function inheritsFrom(element: ElementNode, longhand: string, quirks: boolean): ElementNode | undefined {
  const parent = parentElement(element);
  if (!quirks || longhand !== 'color' || element.tag !== 'table') return parent;
  for (let at = parent; at; at = parentElement(at)) if (at.tag === 'body') return at;
  return parent;
}

/** What the flow itself hangs on. */
export const isFlowFree = (longhand: string): boolean => longhand === 'direction' || longhand === 'writing-mode';
