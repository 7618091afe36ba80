import { browserRules, initial, ownOutcome, type BrowserRule, type OwnOutcome } from '../cascade/ownOutcome.ts';
import { conditionsHold } from '../cascade/conditions.ts';
import { contendersAmong, type Contender } from '../cascade/contenders.ts';
import type { Environment } from '../cascade/environment.ts';
import { hintsOf, hintText } from '../cascade/hints.ts';
import { reachedBy, type Reached } from '../cascade/keptMatching.ts';
import { styleAttributeOf, type MatchedSelector } from '../cascade/matchElement.ts';
import { CascadeSession, type PageCascade } from '../cascade/pageCascade.ts';
import { inheritsFrom, isFlowFree } from '../cascade/pageOutcomes.ts';
import { autoDirection } from '../page/autoDirection.ts';
import { KeptLooks, KeptTree } from '../page/keptTree.ts';
import type { ElementNode } from '../page/nodes.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { flowOf, slotOf, type Flow } from '../values/logicalSlot.ts';

/** What all elements share that the same declarations reach in the same order: everything but what they inherit. */
export interface Kind {
  readonly tag: string;
  /** By pseudo-element, '' for the element: the declarations at rest, strongest first, in whatever environment. */
  readonly contenders: ReadonlyMap<string, readonly Contender[]>;
  readonly defaults: ReadonlyMap<string, readonly BrowserRule[]>;
}

export interface KindPage {
  readonly path: string;
  readonly quirks: boolean;
  readonly tree: KeptTree;
  /** The number of each element's kind. */
  readonly kinds: Int32Array;
}

/** Where the value of one element comes from. */
export interface KeptOutcome {
  readonly own: OwnOutcome;
  /** The element that has it of its own: the element itself, or an ancestor. */
  readonly from: number;
  /** The kind of that element; undefined when it is the initial value of the root. */
  readonly kind: Kind | undefined;
}

const plainFlow = flowOf('initial', 'initial');

/**
 * All pages of a site in memory with the kind of every element, so that a question over the whole site is answered without
 * reading a page again. Nothing is hovered, focused or visited; the environment is asked for with each question.
 */
export class KeptOutcomes {
  readonly pages: readonly KindPage[];
  readonly kinds: readonly Kind[];
  private readonly looks = new KeptLooks();
  private readonly kindNumbers = new Map<string, number>();
  private readonly selectorNumbers = new Map<string, number>();
  private readonly ruleNumbers = new Map<BrowserRule, number>();
  /** Some element's text runs another way, or may: then flows are looked for. */
  private flows = false;

  constructor(site: Site, onPage: (done: number, total: number) => void = () => undefined) {
    const session = new CascadeSession();
    const kinds: Kind[] = [];
    const files = pagesOf(site).filter((file) => file.text !== undefined);
    this.kinds = kinds;
    this.pages = files.map((file, i) => {
      const page = this.read(session.open(site, file), kinds);
      session.sheets.forgetEmbedded();
      onPage(i + 1, files.length);
      return page;
    });
  }

  /** The elements a selector list reaches in some state or always; undefined when browsers refuse it. */
  match(selectors: string): Reached | undefined {
    const list = parseSelectorList(selectors);
    return list && reachedBy(list, this.pages, this.looks);
  }

  /** Outcomes in one environment. */
  in(environment: Environment): OutcomesIn {
    return new OutcomesIn(this, environment, this.flows);
  }

  private read(page: PageCascade, kinds: Kind[]): KindPage {
    const { elements } = page.tree;
    const numbers = new Int32Array(elements.length);
    const seen = new Map<MatchedSelector['indexed'], number>();
    for (const element of elements) {
      const matched = page.matchedAlikeAtRest(element);
      const defaults = browserRules(element, page);
      const key = this.keyOf(page, element, matched, defaults, seen);
      let number = this.kindNumbers.get(key);
      if (number === undefined) {
        this.kindNumbers.set(key, (number = kinds.length));
        kinds.push(this.kindOf(page, element, matched, defaults));
      }
      numbers[element.index] = number;
    }
    return { path: page.path, quirks: page.quirks, tree: new KeptTree(page.tree, this.looks), kinds: numbers };
  }

  private keyOf(
    page: PageCascade,
    element: ElementNode,
    matched: readonly MatchedSelector[],
    defaults: ReadonlyMap<string, readonly BrowserRule[]>,
    seen: Map<MatchedSelector['indexed'], number>,
  ): string {
    let key = `${page.quirks ? 'q' : 's'}${element.namespace === 'html' ? '' : element.namespace} ${/^t[dh]$/.test(element.tag) ? 'cell' : ''}|`;
    for (const { indexed, proximity } of matched) {
      let number = seen.get(indexed);
      if (number === undefined) seen.set(indexed, (number = this.numberOf(indexed)));
      key += proximity === Infinity ? `${number},` : `${number}/${proximity},`;
    }
    for (const rules of defaults.values())
      for (const rule of rules) {
        let number = this.ruleNumbers.get(rule);
        if (number === undefined) this.ruleNumbers.set(rule, (number = this.ruleNumbers.size));
        key += `;${number}`;
      }
    const attribute = styleAttributeOf(element);
    if (attribute !== undefined) key += `|style ${attribute}|${JSON.stringify(page.rules.sources.base)}`;
    const hints = hintsOf(element);
    if (hints.length > 0) key += `|hints ${hintText(hints)}`;
    if (!this.flows && (element.tag === 'bdi' || element.attributes.some((a) => a.name === 'dir'))) this.flows = true;
    return key;
  }

  /** Equal rules in the blocks of different pages count as one, and so do those of a sheet. */
  private numberOf({ rule, selector, pseudoElement, layerRank, mark }: MatchedSelector['indexed']): number {
    const { kind, path } = rule.source;
    const { compiled, conditionKey } = rule;
    const key = `${kind} ${kind === 'embedded' ? compiled.rule.selector : `${path} ${compiled.number}`}|${selector.text}|${compiled.block.key}|${conditionKey}|${pseudoElement}|${layerRank}${mark}`;
    let number = this.selectorNumbers.get(key);
    if (number === undefined) this.selectorNumbers.set(key, (number = this.selectorNumbers.size));
    return number;
  }

  private kindOf(
    page: PageCascade,
    element: ElementNode,
    matched: readonly MatchedSelector[],
    defaults: ReadonlyMap<string, readonly BrowserRule[]>,
  ): Kind {
    const names = new Set(['', ...matched.map((m) => m.indexed.pseudoElement), ...defaults.keys()]);
    const contenders = new Map<string, readonly Contender[]>();
    for (const name of names) {
      const own = matched.filter((m) => m.indexed.pseudoElement === name);
      const all = contendersAmong(page, element, own, name);
      if (all.some(({ compiled }) => compiled.longhands.some(isFlowFree) || compiled.declaration.property === 'all'))
        this.flows = true;
      if (all.length > 0) contenders.set(name, all);
    }
    return { tag: element.tag, contenders, defaults };
  }
}

/** What each longhand of the site's elements comes from in one environment. */
export class OutcomesIn {
  private readonly inPlay = new Map<Kind, Map<string, readonly Contender[]>>();
  private readonly known = new Map<string, Map<Kind, OwnOutcome | undefined>>();
  private readonly kept: KeptOutcomes;
  private readonly environment: Environment;
  private readonly flows: boolean;

  constructor(kept: KeptOutcomes, environment: Environment, flows: boolean) {
    this.kept = kept;
    this.environment = environment;
    this.flows = flows;
  }

  /** The declarations of a kind that count here, strongest first. */
  contendersOf(kind: Kind, pseudoElement = ''): readonly Contender[] {
    let byName = this.inPlay.get(kind);
    if (!byName) this.inPlay.set(kind, (byName = new Map<string, readonly Contender[]>()));
    let known = byName.get(pseudoElement);
    if (!known) {
      const all = kind.contenders.get(pseudoElement) ?? [];
      known = all.filter((one) => conditionsHold(one.conditions, this.environment) === true);
      byName.set(pseudoElement, known);
    }
    return known;
  }

  outcomeOf(page: KindPage, index: number, longhand: string, pseudoElement = ''): KeptOutcome {
    let at = index;
    let name = pseudoElement;
    let asked = longhand;
    for (;;) {
      const kind = this.kept.kinds[page.kinds[at]!]!;
      const flow = isFlowFree(asked) || !this.flows ? plainFlow : this.flowOf(page, at);
      const own = this.ownOf(kind, asked, name, flow);
      if (own) return { own, from: at, kind };
      // a pseudo-element inherits from its element
      const from = name === '' ? this.parentOf(page, at, asked) : at;
      if (from === undefined) return { own: initial(asked), from: at, kind: undefined };
      asked = slotOf(asked, flow);
      name = '';
      at = from;
    }
  }

  /** How text runs on an element. */
  flowOf(page: KindPage, index: number): Flow {
    return this.flows
      ? flowOf(this.keyword(page, index, 'writing-mode'), this.keyword(page, index, 'direction'))
      : plainFlow;
  }

  private parentOf({ tree, quirks }: KindPage, index: number, longhand: string): number | undefined {
    if (quirks && longhand === 'color') return inheritsFrom(tree.element(index), longhand, quirks)?.index;
    const parent = tree.parentIndexOf(index);
    return parent < 0 ? undefined : parent;
  }

  private keyword(page: KindPage, index: number, longhand: 'direction' | 'writing-mode'): string {
    for (let at = index; at >= 0; at = page.tree.parentIndexOf(at)) {
      const auto = longhand === 'direction' ? autoDirection(page.tree.element(at)) : undefined;
      if (auto !== undefined) return auto;
      const own = this.ownOf(this.kept.kinds[page.kinds[at]!]!, longhand, '', plainFlow);
      if (own?.kind === 'declared') return own.contender.compiled.comparable.toLowerCase();
      if (own) return 'initial';
    }
    return 'initial';
  }

  private ownOf(kind: Kind, longhand: string, pseudoElement: string, flow: Flow): OwnOutcome | undefined {
    const byKind = this.column(longhand, pseudoElement, flow);
    if (byKind.has(kind)) return byKind.get(kind);
    const own = ownOutcome({ tag: kind.tag, contenders: this.contendersOf(kind, pseudoElement), defaults: kind.defaults.get(pseudoElement) ?? [], flow: isFlowFree(longhand) ? undefined : flow }, longhand); // prettier-ignore
    byKind.set(kind, own);
    return own;
  }

  /** What is known of one longhand, by kind. */
  private column(longhand: string, pseudoElement: string, flow: Flow): Map<Kind, OwnOutcome | undefined> {
    const key =
      flow === plainFlow && pseudoElement === ''
        ? longhand
        : `${longhand} ${pseudoElement} ${slotOf('margin-block-start', flow)} ${slotOf('margin-inline-start', flow)}`;
    let column = this.known.get(key);
    if (!column) this.known.set(key, (column = new Map<Kind, OwnOutcome | undefined>()));
    return column;
  }
}
