import { PagePlaces } from './ancestry.ts';
import type { IndexedSelector, MatchedSelector } from './indexedSelector.ts';
import type { ElementNode } from '../page/nodes.ts';
import { parseFile, type PageTree } from '../page/parsePage.ts';
import { baseAt } from '../page/styleSources.ts';
import type { ForcedStates, Match } from '../selectors/match.ts';
import type { Site, SiteFile } from '../source/site.ts';
import { Interner } from './interner.ts';
import { matchAtRest, matchElement, matchNumber, styleAttributeOf } from './matchElement.ts';
import { pageRules, type PageRules } from './pageRules.ts';
import { buildRuleIndex, stateCondition, type RuleIndex } from './ruleIndex.ts';
import { SheetCache } from './sheetCache.ts';
import { attributeRank, slotKeys, type StackSource } from './stack.ts';
import type { Base } from '../values/urls.ts';

/** What pages share while many are looked at: compiled sheets, rule indexes, match lists and their stacks. */
export class CascadeSession {
  readonly sheets: SheetCache;
  private readonly interner: Interner;
  private readonly indexes = new Map<string, RuleIndex>();
  private readonly lists: Interner;
  private readonly texts: Interner;
  private readonly sourcesOfList: Map<number, readonly StackSource[]>;
  private readonly slots: Map<number, ReadonlyMap<string, string>>;

  /** With `twin`, numbers of match lists are shared, so that before and after compare by number. */
  constructor(options: { readonly fingerprints?: ReadonlyMap<string, string>; readonly twin?: CascadeSession } = {}) {
    const { twin } = options;
    this.sheets = new SheetCache(options.fingerprints);
    this.interner = twin?.interner ?? new Interner();
    this.lists = twin?.lists ?? new Interner();
    this.texts = twin?.texts ?? new Interner();
    this.sourcesOfList = twin?.sourcesOfList ?? new Map<number, readonly StackSource[]>();
    this.slots = twin?.slots ?? new Map<number, ReadonlyMap<string, string>>();
  }

  open(site: Site, file: SiteFile, scripting = true): PageCascade {
    return this.openTree(site, file, parseFile(file, scripting));
  }

  /** The same for a page that is parsed already. */
  openTree(site: Site, file: SiteFile, tree: PageTree): PageCascade {
    const rules = pageRules(tree, file.path, file.encoding ?? 'utf-8', site, this.sheets);
    return new PageCascade(this, file.path, tree, rules);
  }

  /** Lets go of what pages looked at so far had for themselves; nothing compared by number may be asked across this. */
  forgetPages(): void {
    this.sheets.forgetEmbedded();
    this.indexes.clear();
  }

  /** The index of a page's rules. Pages with equal rules share one; its rules then name the first such page as their place. */
  sharedIndex(rules: PageRules, quirks: boolean): RuleIndex {
    const key = `${quirks ? 'q' : 's'} ${rules.key}`;
    let known = this.indexes.get(key);
    if (!known) {
      if (this.indexes.size > 2000) this.indexes.clear();
      this.indexes.set(key, (known = this.ownIndex(rules, quirks)));
    }
    return known;
  }

  /** An index whose rules carry this page's own places. */
  ownIndex(rules: PageRules, quirks: boolean): RuleIndex {
    return buildRuleIndex(rules, quirks);
  }

  /** The number of an element's match list: equal numbers mean equal declarations in equal order under equal conditions. */
  listNumber(matched: readonly MatchedSelector[], attribute: string | undefined, base: Base): number {
    let key = '';
    for (const { indexed, match } of matched) key += this.numberOf(indexed, match) + ',';
    const block = attribute === undefined ? undefined : this.sheets.styleAttribute(attribute, base);
    if (block && !block.isEmpty) key += `style ${block.key}`;
    const number = this.lists.number(key);
    if (!this.sourcesOfList.has(number)) {
      const sources = matched.map(({ indexed, match }) => stackSource(indexed, match));
      if (block && !block.isEmpty)
        sources.push({ block, pseudoElement: '', layerRank: attributeRank, condition: '', mark: '' });
      this.sourcesOfList.set(number, sources);
    }
    return number;
  }

  /** Numbers of equal entries are equal over all pages and both states. */
  private numberOf(indexed: IndexedSelector, match: Match): number {
    const known = match === 2 ? indexed.sureId : indexed.perhapsId;
    if (known !== undefined) return known;
    const { block, pseudoElement, condition, mark } = stackSource(indexed, match);
    const number = this.interner.number(`${block.key}|${condition}|${pseudoElement}|${mark}|${match}`);
    if (match === 2) indexed.sureId = number;
    else indexed.perhapsId = number;
    return number;
  }

  /** The number of a text, so that long ones are kept once and compared as numbers. */
  textNumber(text: string): number {
    return this.texts.number(text);
  }

  slotsOfList(number: number): ReadonlyMap<string, string> {
    let known = this.slots.get(number);
    if (!known) this.slots.set(number, (known = slotKeys(this.sourcesOfList.get(number)!)));
    return known;
  }

  sourcesOf(number: number): readonly StackSource[] {
    return this.sourcesOfList.get(number)!;
  }
}

/** A rule that reaches an element as it stands in the stack. */
export const stackSource = (indexed: IndexedSelector, match: Match): StackSource => ({
  block: indexed.rule.compiled.block,
  pseudoElement: indexed.pseudoElement,
  layerRank: indexed.layerRank,
  condition: match === 2 ? indexed.rule.conditionKey : stateCondition(indexed),
  mark: indexed.mark,
});

/** One page with its rules, ready to say which of them reach an element. */
export class PageCascade {
  readonly quirks: boolean;
  private alikePage: IndexedPage | undefined;
  private exactPage: IndexedPage | undefined;
  readonly session: CascadeSession;
  readonly path: string;
  readonly tree: PageTree;
  readonly rules: PageRules;

  constructor(session: CascadeSession, path: string, tree: PageTree, rules: PageRules) {
    this.session = session;
    this.path = path;
    this.tree = tree;
    this.rules = rules;
    this.quirks = tree.mode === 'quirks';
  }

  /** The element's match list as a number comparable over all pages of the session and its twin. */
  listOf(element: ElementNode): number {
    const { index, places } = this.alike();
    const attribute = styleAttributeOf(element);
    const base = attribute === undefined ? this.rules.sources.base : baseAt(this.rules.sources, element);
    if (attribute !== undefined) return this.session.listNumber(matchElement(element, index, places), attribute, base);
    return matchNumber(element, index, places, (matched) => this.session.listNumber(matched, undefined, base));
  }

  /** The rules that reach the element, weakest first, with this page's own places. */
  matched(element: ElementNode): readonly MatchedSelector[] {
    const { index, places } = this.exact();
    return matchElement(element, index, places);
  }

  /** The same rules, their places those of the first page with equal ones: quicker where many pages are alike. */
  matchedAlike(element: ElementNode): readonly MatchedSelector[] {
    const { index, places } = this.alike();
    return matchElement(element, index, places);
  }

  /** Those that do with nothing hovered, focused or visited except the states held on. */
  matchedAtRest(element: ElementNode, forced?: ForcedStates): readonly MatchedSelector[] {
    const { index, places } = this.exact();
    return matchAtRest(element, index, forced, places);
  }

  /** The same, their places those of the first page with equal rules. */
  matchedAlikeAtRest(element: ElementNode): readonly MatchedSelector[] {
    const { index, places } = this.alike();
    return matchAtRest(element, index, undefined, places);
  }

  private alike(): IndexedPage {
    return (this.alikePage ??= this.indexed(this.session.sharedIndex(this.rules, this.quirks)));
  }

  private exact(): IndexedPage {
    return (this.exactPage ??= this.indexed(this.session.ownIndex(this.rules, this.quirks)));
  }

  private indexed(index: RuleIndex): IndexedPage {
    return { index, places: new PagePlaces(this.tree.elements) };
  }
}

/** An index of rules, and what of its places is known in one page. */
interface IndexedPage {
  readonly index: RuleIndex;
  readonly places: PagePlaces;
}
