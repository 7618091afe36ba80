import { browserRules, initial, ownOutcome, type BrowserRule, type OwnOutcome } from '../cascade/ownOutcome.ts';
import { conditionsHold } from '../cascade/conditions.ts';
import { contendersAmong, type Contender } from '../cascade/contenders.ts';
import type { Environment } from '../cascade/environment.ts';
import { hintsOf, hintText } from '../cascade/hints.ts';
import { hangsOnPathOnly, markPaths, reachedBy } from '../cascade/keptMatching.ts';
import { styleAttributeOf, type MatchedSelector } from '../cascade/matchElement.ts';
import { CascadeSession, type PageCascade } from '../cascade/pageCascade.ts';
import { isFlowFree } from '../cascade/pageOutcomes.ts';
import { autoDirection } from '../page/autoDirection.ts';
import { KeptLooks, KeptTree, type Look } from '../page/keptTree.ts';
import type { ElementNode } from '../page/nodes.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { flowOf, slotOf, type Flow } from '../values/logicalSlot.ts';
import { PairNumbers } from './pairNumbers.ts';

/** What all elements share that the same declarations reach in the same order: everything but what they inherit. */
export interface Kind {
  readonly number: number;
  readonly tag: string;
  readonly quirks: boolean;
  /** By pseudo-element, '' for the element: the declarations at rest, strongest first, in whatever environment. */
  readonly contenders: ReadonlyMap<string, readonly Contender[]>;
  readonly defaults: ReadonlyMap<string, readonly BrowserRule[]>;
  /** The direction its text gives it, where `dir` asks for that. */
  readonly auto: string | undefined;
}

export interface KindPage {
  readonly path: string;
  readonly quirks: boolean;
  readonly tree: KeptTree;
  /** The number of each element's cell: its path, and the kinds along it. */
  readonly cells: Int32Array;
}

/** Where the value of an element comes from. */
export interface KeptOutcome {
  readonly own: OwnOutcome;
  /** How many ancestors up the element stands that has it of its own. */
  readonly up: number;
  /** The kind of that element. */
  readonly kind: Kind;
}

const plainFlow = flowOf('initial', 'initial');

/** The elements a selector reaches: by their cells alone, or one by one where siblings or children decide. */
export type Reaching =
  | { readonly by: 'cell'; readonly cells: Uint8Array }
  | { readonly by: 'element'; readonly elements: ReadonlyMap<string, readonly number[]> };

/**
 * All pages of a site in memory with the kind of every element and of its ancestors, so that a question over the whole site is
 * answered without reading a page again. Nothing is hovered, focused or visited; the environment is asked for with each question.
 */
export class KeptOutcomes {
  readonly pages: readonly KindPage[];
  readonly kinds: Kind[] = [];
  /** Kinds of an element and all its ancestors: a number for each such row, its kind, and the row of the parent (-1 for none). */
  private readonly chains = new PairNumbers();
  /** Path and chain together. */
  private readonly cells = new PairNumbers();
  private readonly looks = new KeptLooks();
  private readonly kindNumbers = new Map<string, number>();
  private readonly selectorNumbers = new Map<string, number>();
  private readonly ruleNumbers = new Map<BrowserRule, number>();
  /** What the browser and presentational attributes say, by path: ancestors and attributes decide it. */
  private readonly plainByPath: (PathSays | undefined)[][] = [[], []];
  private readonly reaches = new Map<string, Reaching>();
  private readonly environments = new Map<string, OutcomesIn>();
  /** Some element's text runs another way, or may: then flows are looked for. */
  private flows = false;

  constructor(site: Site, onPage: (done: number, total: number) => void = () => undefined) {
    const session = new CascadeSession();
    const files = pagesOf(site).filter((file) => file.text !== undefined);
    this.pages = files.map((file, i) => {
      const page = this.read(session.open(site, file));
      session.sheets.forgetEmbedded();
      onPage(i + 1, files.length);
      return page;
    });
  }

  /** Undefined when browsers refuse the selector. */
  reach(selectors: string): Reaching | undefined {
    const known = this.reaches.get(selectors);
    if (known) return known;
    const reaching = this.look(selectors);
    if (this.reaches.size > 30) this.reaches.clear();
    if (reaching) this.reaches.set(selectors, reaching);
    return reaching;
  }

  private look(selectors: string): Reaching | undefined {
    const list = parseSelectorList(selectors);
    if (!list) return undefined;
    if (!list.every(hangsOnPathOnly)) return { by: 'element', elements: reachedBy(list, this.pages, this.looks) };
    const modes = new Set(this.pages.map((page) => page.quirks));
    const marked = [false, true].map((quirks) => (modes.has(quirks) ? markPaths(list, quirks, this.looks) : undefined));
    const cells = new Uint8Array(this.cells.count);
    for (let cell = 0; cell < cells.length; cell++) {
      const { quirks } = this.kindOfChain(this.cells.second(cell));
      cells[cell] = marked[quirks ? 1 : 0]![this.cells.first(cell)]!;
    }
    return { by: 'cell', cells };
  }

  /** Outcomes in one environment; what was found once is kept. */
  in(environment: Environment): OutcomesIn {
    const key = JSON.stringify(environment);
    let known = this.environments.get(key);
    if (!known) {
      if (this.environments.size > 3) this.environments.clear();
      this.environments.set(key, (known = new OutcomesIn(this, environment, this.flows)));
    }
    return known;
  }

  /** How many elements of the site look so: by name, ID, classes and other attributes. */
  countLooks(visit: (look: Look, elements: number) => void): void {
    const counts = new Int32Array(this.looks.lookCount);
    for (const { cells } of this.pages)
      for (const cell of cells) counts[this.looks.lookOfPath(this.cells.first(cell))]!++;
    counts.forEach((count, i) => count > 0 && visit(this.looks.look(i), count));
  }

  get cellCount(): number {
    return this.cells.count;
  }

  chainOfCell(cell: number): number {
    return this.cells.second(cell);
  }

  kindOfChain(chain: number): Kind {
    return this.kinds[this.chains.first(chain)]!;
  }

  /** -1 for the root. */
  parentChain(chain: number): number {
    return this.chains.second(chain);
  }

  private read(page: PageCascade): KindPage {
    const { elements } = page.tree;
    const tree = new KeptTree(page.tree, this.looks);
    const cells = new Int32Array(elements.length);
    const chains = new Int32Array(elements.length);
    const seen = new Map<MatchedSelector['indexed'], number>();
    for (const element of elements) {
      const i = element.index;
      const matched = page.matchedAlikeAtRest(element);
      const says = this.plainOf(page, element, tree.pathOf(i));
      const key = this.keyOf(page, element, matched, says, seen);
      let number = this.kindNumbers.get(key);
      if (number === undefined) {
        this.kindNumbers.set(key, (number = this.kinds.length));
        this.kinds.push(this.kindOf(page, element, matched, says.defaults));
      }
      const parent = tree.parentIndexOf(i);
      chains[i] = this.chains.number(number, parent < 0 ? -1 : chains[parent]!);
      cells[i] = this.cells.number(tree.pathOf(i), chains[i]);
    }
    return { path: page.path, quirks: page.quirks, tree, cells };
  }

  private plainOf(page: PageCascade, element: ElementNode, path: number): PathSays {
    const byPath = this.plainByPath[page.quirks ? 1 : 0]!;
    const known = byPath[path];
    if (known) return known;
    const defaults = browserRules(element, page);
    let key = '';
    for (const rules of defaults.values())
      for (const rule of rules) {
        let number = this.ruleNumbers.get(rule);
        if (number === undefined) this.ruleNumbers.set(rule, (number = this.ruleNumbers.size));
        key += `;${number}`;
      }
    const hints = hintsOf(element);
    if (hints.length > 0) key += `|hints ${hintText(hints)}`;
    const says = { defaults, key };
    // the browser's own sheet asks these for their place among siblings
    if (!/^(summary|legend|option|optgroup|details|dialog|input|slot)$/.test(element.tag)) byPath[path] = says;
    return says;
  }

  private keyOf(
    page: PageCascade,
    element: ElementNode,
    matched: readonly MatchedSelector[],
    says: PathSays,
    seen: Map<MatchedSelector['indexed'], number>,
  ): string {
    let key = `${page.quirks ? 'q' : 's'}${element.namespace === 'html' ? '' : element.namespace} ${element.tag}|`;
    for (const { indexed, proximity } of matched) {
      let number = seen.get(indexed);
      if (number === undefined) seen.set(indexed, (number = this.numberOf(indexed)));
      key += proximity === Infinity ? `${number},` : `${number}/${proximity},`;
    }
    key += says.key;
    const attribute = styleAttributeOf(element);
    if (attribute !== undefined) key += `|style ${attribute}${/url|src|image-set/i.test(attribute) ? JSON.stringify(page.rules.sources.base) : ''}`; // prettier-ignore
    if (element.tag === 'bdi' || element.attributes.some((a) => a.name === 'dir')) {
      this.flows = true;
      key += `|dir ${autoDirection(element) ?? ''}`;
    }
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
    const { tag } = element;
    return { number: this.kinds.length, tag, quirks: page.quirks, contenders, defaults, auto: autoDirection(element) };
  }
}

interface PathSays {
  readonly defaults: ReadonlyMap<string, readonly BrowserRule[]>;
  readonly key: string;
}

/** What each longhand of the site's elements comes from in one environment. */
export class OutcomesIn {
  private readonly inPlay = new Map<Kind, Map<string, readonly Contender[]>>();
  private readonly columns = new Map<string, (OwnOutcome | null | undefined)[]>();
  private readonly found = new Map<string, (KeptOutcome | undefined)[]>();
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

  /** Of an element with this row of kinds. */
  outcomeOf(chain: number, longhand: string, pseudoElement = ''): KeptOutcome {
    const key = pseudoElement === '' ? longhand : `${longhand} ${pseudoElement}`;
    let column = this.found.get(key);
    if (!column) this.found.set(key, (column = []));
    return (column[chain] ??= this.find(chain, longhand, pseudoElement));
  }

  private find(chain: number, longhand: string, pseudoElement: string): KeptOutcome {
    const kind = this.kept.kindOfChain(chain);
    const flow = isFlowFree(longhand) || !this.flows ? plainFlow : this.flowOf(chain);
    const own = this.ownOf(kind, longhand, pseudoElement, flow);
    if (own) return { own, up: 0, kind };
    // a pseudo-element inherits from its element
    const steps = pseudoElement === '' ? this.stepsToParent(chain, longhand) : 0;
    let parent = chain;
    for (let i = 0; i < steps && parent >= 0; i++) parent = this.kept.parentChain(parent);
    if (parent < 0) return { own: initial(longhand), up: 0, kind };
    const outcome = this.outcomeOf(parent, slotOf(longhand, flow));
    return outcome.own.kind === 'initial' ? { ...outcome, up: 0 } : { ...outcome, up: outcome.up + Math.max(steps, 1) };
  }

  /** Quirks Mode Standard, "The tables inherit color from body quirk". */
  private stepsToParent(chain: number, longhand: string): number {
    const kind = this.kept.kindOfChain(chain);
    if (!kind.quirks || longhand !== 'color' || kind.tag !== 'table') return 1;
    let steps = 1;
    for (let at = this.kept.parentChain(chain); at >= 0; at = this.kept.parentChain(at), steps++)
      if (this.kept.kindOfChain(at).tag === 'body') return steps;
    return 1;
  }

  /** How text runs on an element. */
  private flowOf(chain: number): Flow {
    return flowOf(this.keyword(chain, 'writing-mode'), this.keyword(chain, 'direction'));
  }

  private keyword(chain: number, longhand: 'direction' | 'writing-mode'): string {
    for (let at = chain; at >= 0; at = this.kept.parentChain(at)) {
      const kind = this.kept.kindOfChain(at);
      if (longhand === 'direction' && kind.auto !== undefined) return kind.auto;
      const own = this.ownOf(kind, longhand, '', plainFlow);
      if (own?.kind === 'declared') return own.contender.compiled.comparable.toLowerCase();
      if (own) return 'initial';
    }
    return 'initial';
  }

  private ownOf(kind: Kind, longhand: string, pseudoElement: string, flow: Flow): OwnOutcome | undefined {
    const key =
      flow === plainFlow && pseudoElement === ''
        ? longhand
        : `${longhand} ${pseudoElement} ${slotOf('margin-block-start', flow)} ${slotOf('margin-inline-start', flow)}`;
    let column = this.columns.get(key);
    if (!column) this.columns.set(key, (column = []));
    let own = column[kind.number];
    if (own === undefined) {
      const contenders = this.contendersOf(kind, pseudoElement);
      const defaults = kind.defaults.get(pseudoElement) ?? [];
      own = ownOutcome({ tag: kind.tag, contenders, defaults, flow: isFlowFree(longhand) ? undefined : flow }, longhand) ?? null; // prettier-ignore
      column[kind.number] = own;
    }
    return own ?? undefined;
  }
}
