import { KeptLooks, KeptTree } from '../page/keptTree.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { compareSpecificity, type ComplexSelector } from '../selectors/selector.ts';
import type { Match } from '../selectors/match.ts';
import { parseDeclarations } from '../sheet/parseSheet.ts';
import { pagesOf, sheetsOf, type Site } from '../source/site.ts';
import { siteBase } from '../values/urls.ts';
import { compileBlock } from './compileBlock.ts';
import type { CompiledBlock, CompiledRule } from './compiledRule.ts';
import { Interner } from './interner.ts';
import { reachedBy, type Reached } from './keptMatching.ts';
import { baseAt } from '../page/styleSources.ts';
import { matchElement, styleAttributeOf, type MatchedSelector } from './matchElement.ts';
import { CascadeSession } from './pageCascade.ts';
import { stateCondition, type IndexedSelector } from './ruleIndex.ts';
import { attributeRank, differingSlots, slotKeys, type StackSource } from './stack.ts';

/** A rule of a sheet file, by where its selector starts. */
export interface RulePlace {
  readonly path: string;
  readonly offset: number;
}

interface KeptPage {
  readonly path: string;
  readonly quirks: boolean;
  readonly tree: KeptTree;
  /** The number of each element's match list. */
  readonly lists: Int32Array;
  readonly definesReference: boolean;
}

/** One selector of one rule in a match list; equal over all pages that read the rule from the same sheet alike. */
interface Entry {
  readonly path: string | undefined;
  readonly rule: CompiledRule;
  readonly selector: ComplexSelector;
  readonly source: StackSource;
}

interface MatchList {
  readonly entries: readonly number[];
  readonly attribute: CompiledBlock | undefined;
}

/**
 * All pages of a site in memory, a few dozen bytes an element, with the match list of every element: what an edit or a move
 * of a rule, or a new selector, reaches is answered from these without parsing a page again.
 */
export class KeptSite {
  /** Pages read by this one, not taken over from the one before. */
  readonly reread: string[] = [];
  private readonly session: CascadeSession;
  private readonly looks: KeptLooks;
  private readonly pages: KeptPage[] = [];
  private readonly entries: Entry[];
  private readonly entryNumbers: Interner;
  private readonly listNumbers: Interner;
  private readonly lists: MatchList[];
  private readonly listsOfRule: Map<CompiledRule, number[]>;
  /** Some page has a custom property that holds an address: then blocks with `var()` differ by folder. */
  private definesReference = false;
  private readonly site: Site;

  /** `before`: the same site a moment ago; its unchanged pages are taken over when no sheet changed. */
  constructor(site: Site, before?: KeptSite) {
    this.site = site;
    this.session = before?.session ?? new CascadeSession();
    this.looks = before?.looks ?? new KeptLooks();
    this.entries = before?.entries ?? [];
    this.entryNumbers = before?.entryNumbers ?? new Interner();
    this.listNumbers = before?.listNumbers ?? new Interner();
    this.lists = before?.lists ?? [];
    this.listsOfRule = before?.listsOfRule ?? new Map<CompiledRule, number[]>();
    const taken = new Map(before && sheetsKey(before.site) === sheetsKey(site) ? before.pages.map((p) => [p.path, p]) : []); // prettier-ignore
    for (const file of pagesOf(site)) {
      if (file.text === undefined) continue;
      const known = before?.site.files.get(file.path)?.hash === file.hash ? taken.get(file.path) : undefined;
      const page = known ?? this.read(file.path);
      this.pages.push(page);
      if (page.definesReference) this.definesReference = true;
    }
  }

  update(site: Site): KeptSite {
    return new KeptSite(site, this);
  }

  /** The elements a selector list reaches in some state or always; undefined when browsers refuse it. */
  match(selectors: string): Reached | undefined {
    const list = parseSelectorList(selectors);
    return list && reachedBy(list, this.pages, this.looks);
  }

  /**
   * The elements that may look different when the rule's declarations become these. Undefined where only a full comparison
   * can tell: no such rule, one with nested rules, or values that bring addresses in through `var()`.
   */
  edit(place: RulePlace, declarations: string): Reached | undefined {
    const base = siteBase(place.path);
    const block = compileBlock(parseDeclarations(declarations), { base, fingerprint: undefined });
    const rule = this.ruleAt(place);
    if (!rule || block.definesReference || rule.block.definesReference) return undefined;
    if (this.definesReference && (block.varFolder ?? rule.block.varFolder) !== undefined) return undefined;
    return this.changed(rule, (entries) =>
      entries.map((e) => (e.rule === rule && e.path === place.path ? { ...e.source, block } : e.source)),
    );
  }

  /**
   * The elements that may look different when the rule moves before another rule of its sheet, or to the sheet's end.
   * Undefined where only a full comparison can tell: no such rules, `@scope`, a sheet read
   * twice, rules inside layers or with nested ones.
   */
  move(place: RulePlace, before: RulePlace | undefined): Reached | undefined {
    const rule = this.ruleAt(place);
    const next = before && this.ruleAt(before);
    if (!rule || (before && (!next || before.path !== place.path))) return undefined;
    if (rule.layers.length > 0 || next?.layers.length) return undefined;
    let unsure = false;
    const reached = this.changed(rule, (entries) => {
      const own = entries.filter((e) => e.rule === rule && e.path === place.path);
      if (new Set(own).size < own.length || entries.some((e) => e.rule.scopes.length > 0)) unsure = true;
      return moved(entries, own, place.path, next?.number ?? Infinity).map((e) => e.source);
    });
    return unsure ? undefined : reached;
  }

  private read(path: string): KeptPage {
    this.reread.push(path);
    const page = this.session.open(this.site, this.site.files.get(path)!);
    const { elements } = page.tree;
    const lists = new Int32Array(elements.length);
    const index = this.session.ownIndex(page.rules, page.quirks);
    const known = new Map<IndexedSelector, [number | undefined, number | undefined]>();
    for (const element of elements) {
      const numbers = matchElement(element, index).map((m) => this.entryOf(m, known));
      const attribute = styleAttributeOf(element);
      const block = attribute === undefined ? undefined : this.session.sheets.styleAttribute(attribute, baseAt(page.rules.sources, element)); // prettier-ignore
      lists[element.index] = this.listOf(numbers, block);
    }
    const { definesReference } = page.rules;
    this.session.sheets.forgetEmbedded();
    return { path, quirks: page.quirks, tree: new KeptTree(page.tree, this.looks), lists, definesReference };
  }

  private entryOf(
    { indexed, match }: MatchedSelector,
    known: Map<IndexedSelector, [number | undefined, number | undefined]>,
  ): number {
    let pair = known.get(indexed);
    if (!pair) known.set(indexed, (pair = [undefined, undefined]));
    return (pair[match === 2 ? 0 : 1] ??= this.numberEntry(indexed, match));
  }

  private numberEntry(indexed: IndexedSelector, match: Match): number {
    const { rule, selector, pseudoElement, layerRank, mark } = indexed;
    const condition = match === 2 ? rule.conditionKey : stateCondition(indexed);
    const path = rule.source.kind === 'embedded' ? undefined : rule.source.path;
    // which of equal rules an embedded one is does not matter: only rules of sheet files are edited here
    const place = path === undefined ? `${selector.text}{${rule.compiled.block.key}}` : `${rule.compiled.number} ${rule.compiled.selectors.indexOf(selector)} ${path}`; // prettier-ignore
    const number = this.entryNumbers.number(`${place} ${pseudoElement} ${layerRank}${mark}|${condition}`);
    if (number === this.entries.length) {
      const source = { block: rule.compiled.block, pseudoElement, layerRank, condition, mark };
      this.entries.push({ path, rule: rule.compiled, selector, source });
    }
    return number;
  }

  private listOf(entries: readonly number[], attribute: CompiledBlock | undefined): number {
    const own = attribute && !attribute.isEmpty ? attribute : undefined;
    const number = this.listNumbers.number(own ? `${entries.join()} ${own.key}` : entries.join());
    if (number === this.lists.length) {
      this.lists.push({ entries, attribute: own });
      for (const rule of new Set(entries.map((e) => this.entries[e]!.rule))) {
        const lists = this.listsOfRule.get(rule);
        if (lists) lists.push(number);
        else this.listsOfRule.set(rule, [number]);
      }
    }
    return number;
  }

  /** The rule that stands there alone: without nested rules, and reaching something. */
  private ruleAt({ path, offset }: RulePlace): CompiledRule | undefined {
    const entry = this.entries.find((e) => e.path === path && e.rule.rule.span.start === offset);
    return entry?.rule.rule.nested.length === 0 ? entry.rule : undefined;
  }

  private changed(rule: CompiledRule, change: (entries: readonly Entry[]) => readonly StackSource[]): Reached {
    const marked = new Uint8Array(this.lists.length);
    const answers = new Map<string, boolean>();
    for (const number of this.listsOfRule.get(rule) ?? []) {
      const { entries, attribute } = this.lists[number]!;
      const own = entries.map((e) => this.entries[e]!);
      const before = withAttribute(own.map((e) => e.source), attribute); // prettier-ignore
      const after = withAttribute(change(own), attribute);
      // lists of equal blocks in equal order change alike
      const key = `${before.map(sourceKey).join('\n')}\0${after.map(sourceKey).join('\n')}`;
      let differs = answers.get(key);
      if (differs === undefined) answers.set(key, (differs = differingSlots(slotKeys(before), slotKeys(after)).length > 0)); // prettier-ignore
      if (differs) marked[number] = 1;
    }
    const reached = new Map<string, number[]>();
    for (const { path, lists } of this.pages) {
      let found: number[] | undefined;
      for (let i = 0; i < lists.length; i++) if (marked[lists[i]!] === 1) (found ??= []).push(i);
      if (found) reached.set(path, found);
    }
    return reached;
  }
}

/** Which files there are matters as well: a sheet may have come or gone. */
const sheetsKey = (site: Site): string =>
  sheetsOf(site).map((file) => `${file.path} ${file.hash}`).join('\n'); // prettier-ignore

const sourceKey = ({ block, pseudoElement, layerRank, condition, mark }: StackSource): string =>
  `${block.key}|${pseudoElement}|${layerRank}|${condition}|${mark}`;

const withAttribute = (sources: readonly StackSource[], block: CompiledBlock | undefined): readonly StackSource[] =>
  block ? [...sources, { block, pseudoElement: '', layerRank: attributeRank, condition: '', mark: '' }] : sources;

/** A rule's entries put among those of equal strength as if it stood before the rule of number `target` in its sheet. */
function moved(entries: readonly Entry[], own: readonly Entry[], path: string, target: number): readonly Entry[] {
  const out = entries.filter((e) => !own.includes(e));
  for (const entry of own) {
    const old = entries.indexOf(entry);
    const isBefore = (other: Entry): boolean => {
      const strength = entry.source.layerRank - other.source.layerRank || compareSpecificity(entry.selector.specificity, other.selector.specificity); // prettier-ignore
      if (strength !== 0) return strength < 0;
      return other.path === path ? target <= other.rule.number : old < entries.indexOf(other);
    };
    const at = out.findIndex(isBefore);
    out.splice(at < 0 ? out.length : at, 0, entry);
  }
  return out;
}
