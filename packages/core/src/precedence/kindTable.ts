import type { MatchedSelector } from '../cascade/indexedSelector.ts';
import { browserRules, type BrowserRule } from '../cascade/ownOutcome.ts';
import { contendersAmong, type Contender } from '../cascade/contenders.ts';
import { hintsOf, hintText } from '../cascade/hints.ts';
import { styleAttributeOf } from '../cascade/matchElement.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import { isFlowFree } from '../cascade/pageOutcomes.ts';
import { autoDirection } from '../page/autoDirection.ts';
import { KeptLooks, KeptTree } from '../page/keptTree.ts';
import type { ElementNode } from '../page/nodes.ts';
import { PairNumbers } from './pairNumbers.ts';
import type { SheetMoves } from '../survey/sheetMoves.ts';
import { MovedContenders } from './movedContenders.ts';

/** What all elements share that the same declarations reach in the same order: everything but what they inherit. */
export interface Kind {
  readonly number: number;
  readonly tag: string;
  readonly quirks: boolean;
  /**
   * By pseudo-element, '' for the element: the declarations at rest, strongest first, in whatever environment. Those of a sheet
   * stand where the sheet has them; those of a page say nothing of their place, since many pages share a kind.
   */
  readonly contenders: ReadonlyMap<string, readonly Contender[]>;
  readonly defaults: ReadonlyMap<string, readonly BrowserRule[]>;
  /** The direction its text gives it, where `dir` asks for that. */
  readonly auto: string | undefined;
}

export interface KindPage {
  /** Of its file. */
  readonly hash: string;
  readonly path: string;
  readonly quirks: boolean;
  readonly tree: KeptTree;
  /** The number of each element's cell: its path, and the kinds along it. */
  readonly cells: Int32Array;
}

/** A rule's selector, told from all others: by place and text in a sheet, by text alone in a page. */
interface SelectorId {
  readonly path: string;
  readonly start: number;
  readonly rest: string;
}

/** Numbers for the kinds of all elements read so far, of whatever pages and states of one site. */
export class KindTable {
  readonly kinds: Kind[] = [];
  readonly looks = new KeptLooks();
  /** Kinds of an element and all its ancestors: a number for each such row, its kind, and the row of the parent (-1 for none). */
  private readonly chains = new PairNumbers();
  /** Path and chain together. */
  private readonly cells = new PairNumbers();
  private readonly kindNumbers = new Map<string, number>();
  private readonly selectorIds: SelectorId[] = [];
  private selectorNumbers = new Map<string, number>();
  private readonly ruleNumbers = new Map<BrowserRule, number>();
  /** What the browser and presentational attributes say, by path: ancestors and attributes decide it. */
  private readonly plainByPath: (PathSays | undefined)[][] = [[], []];
  /** Some element's text runs another way, or may: then flows are looked for. */
  flows = false;

  get cellCount(): number {
    return this.cells.count;
  }

  pathOfCell(cell: number): number {
    return this.cells.first(cell);
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

  read(page: PageCascade, hash: string): KindPage {
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
    return { hash, path: page.path, quirks: page.quirks, tree, cells };
  }

  /** Sheets whose rules stand elsewhere now: what is known of them is taken along. */
  move(sheets: ReadonlyMap<string, SheetMoves>): void {
    if (sheets.size === 0) return;
    this.selectorNumbers = new Map();
    for (const [number, id] of this.selectorIds.entries()) {
      const by = sheets.get(id.path)?.by(id.start) ?? (sheets.has(id.path) ? undefined : 0);
      // a rule that is no longer there as it was reaches nothing any more
      if (by === undefined) continue;
      const now = (this.selectorIds[number] = { ...id, start: id.start + by });
      this.selectorNumbers.set(textOf(now), number);
    }
    const moved = new MovedContenders(sheets);
    for (const kind of this.kinds) {
      const contenders = moved.of(kind.contenders);
      if (contenders !== kind.contenders) this.kinds[kind.number] = { ...kind, contenders };
    }
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
    let block: number | undefined;
    for (const { indexed, proximity } of matched) {
      let number = seen.get(indexed);
      if (number === undefined) seen.set(indexed, (number = this.numberOf(indexed)));
      const { kind, offset } = indexed.rule.source;
      // whether two rules of a page stand in one block is said
      if (kind === 'embedded' && block !== undefined && block !== offset) key += 'other ';
      if (kind === 'embedded') block = offset;
      key += proximity === Infinity ? `${number},` : `${number}/${proximity},`;
    }
    key += says.key;
    const attribute = styleAttributeOf(element);
    if (attribute !== undefined)
      key += `|style ${attribute}${/url|src|image-set/i.test(attribute) ? JSON.stringify(page.rules.sources.base) : ''}`;
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
    const inPage = kind === 'embedded';
    const written = compiled.rule;
    // what is shown as written is told apart as written
    const says = compiled.block.declarations
      .map(({ declaration: { property, value, important, span } }) => {
        const place = inPage ? '' : span.start - written.span.start;
        return `${place} ${property}:${value}${important ? '!' : ''}`;
      })
      .join(';');
    const rest = `${kind}|${written.selector}|${selector.text}|${says}|${compiled.block.key}|${conditionKey}|${pseudoElement}|${layerRank}${mark}`;
    const id = { path: inPage ? '' : path, start: inPage ? 0 : written.span.start, rest };
    const text = textOf(id);
    let number = this.selectorNumbers.get(text);
    if (number === undefined) {
      this.selectorNumbers.set(text, (number = this.selectorIds.length));
      this.selectorIds.push(id);
    }
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

const textOf = ({ path, start, rest }: SelectorId): string => `${path} ${start}|${rest}`;
