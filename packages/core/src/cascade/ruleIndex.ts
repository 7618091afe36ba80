import { lowered } from '../source/asciiCase.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import type { MatchContext } from '../selectors/match.ts';
import { stateText } from '../selectors/stateText.ts';
import { compareSpecificity, type SimpleSelector } from '../selectors/selector.ts';
import { parentElement } from '../page/parsePage.ts';
import { Ancestry, askedOfAll, candidatesAt, namesAbove, type Candidates, type Place } from './ancestry.ts';
import type { IndexedSelector } from './indexedSelector.ts';
import type { AppliedRule, PageRules } from './pageRules.ts';

/** The selectors of a page's rules, found by what their last compound asks for. */
export interface RuleIndex {
  /** All of them, weakest first for normal declarations. */
  readonly all: readonly IndexedSelector[];
  readonly byId: ReadonlyMap<string, readonly IndexedSelector[]>;
  readonly byClass: ReadonlyMap<string, readonly IndexedSelector[]>;
  readonly byTag: ReadonlyMap<string, readonly IndexedSelector[]>;
  readonly rest: readonly IndexedSelector[];
  readonly quirks: boolean;
  /** Matching where states count as "in some states". */
  readonly anyState: MatchContext;
  readonly ancestry: Ancestry;
  /** Names that last compounds ask for. */
  readonly classesAsked: ReadonlySet<string>;
  readonly idsAsked: ReadonlySet<string>;
}

export function buildRuleIndex(rules: PageRules, quirks: boolean): RuleIndex {
  const all: IndexedSelector[] = [];
  const { hangsOn } = rules.layers;
  for (const [order, rule] of rules.rules.entries()) {
    const { scopes, block, selectors } = rule.compiled;
    const owner = scopes.length > 0 ? scopeOwner(rules, rule) : undefined;
    const layerRank = rules.layers.hasLayers ? rules.layers.rank(rule.layerPath) : 0;
    const folder = rules.definesReference && block.varFolder !== undefined ? `/${block.varFolder}` : '';
    const layer = rule.layerPath.length > 0 ? `${layerRank}${hangsOn === '' ? '' : ` of ${hangsOn}`}` : undefined;
    const mark = markOf(layer, rule.unreadBefore, folder);
    for (const selector of selectors) {
      const pseudoElement = selector.compounds.at(-1)!.pseudoElement ?? '';
      const above = namesAbove(selector.compounds, selector.combinators, quirks);
      all.push({
        rule,
        selector,
        pseudoElement,
        layerRank,
        order,
        scopes,
        owner,
        position: all.length,
        above,
        mark,
        sureId: undefined,
        perhapsId: undefined,
      });
    }
  }
  const ordered = [...all].sort((a, b) => compareStrength(a, b) || a.order - b.order);
  ordered.forEach((indexed, i) => (indexed.position = i));
  return { all: ordered, ...bucket(all, quirks) };
}

/** The condition under which a selector that matches in some states only contributes. */
export const stateCondition = ({ rule, scopes, selector }: IndexedSelector): string =>
  scopes.length === 0
    ? `${rule.conditionKey} ${stateText(selector)}`
    : `${rule.conditionKey} ${scopes.map((scope) => scope.text).join(' ')}${selector.text}`;

/** Layer and specificity; what remains is scope proximity and order of appearance. */
export const compareStrength = (a: IndexedSelector, b: IndexedSelector): number =>
  a.layerRank - b.layerRank || compareSpecificity(a.selector.specificity, b.selector.specificity);

function scopeOwner(rules: PageRules, rule: AppliedRule): ElementNode | undefined {
  const source = rules.sources.sheets[rule.source.sourceIndex];
  return source?.kind === 'embedded' && rule.source.kind === 'embedded' ? parentElement(source.element) : undefined;
}

function markOf(inLayer: string | undefined, unreadBefore: number, folder: string): string {
  const layer = inLayer === undefined ? '' : ` layer ${inLayer}`;
  const unread = unreadBefore === 0 ? '' : ` after ${unreadBefore} unread`;
  return `${layer}${unread}${folder === '' ? '' : ` from ${folder}`}`;
}

function bucket(all: readonly IndexedSelector[], quirks: boolean): Omit<RuleIndex, 'all'> {
  const byId = new Map<string, IndexedSelector[]>();
  const byClass = new Map<string, IndexedSelector[]>();
  const byTag = new Map<string, IndexedSelector[]>();
  const rest: IndexedSelector[] = [];
  for (const indexed of all) {
    const simples = askedOfAll(indexed.selector.compounds.at(-1)!.simples);
    const id = simples.find((s): s is Extract<SimpleSelector, { kind: 'id' }> => s.kind === 'id');
    const own = simples.find((s): s is Extract<SimpleSelector, { kind: 'class' }> => s.kind === 'class');
    const type = simples.find((s): s is Extract<SimpleSelector, { kind: 'type' }> => s.kind === 'type');
    if (id) add(byId, foldFor(id.name, quirks), indexed);
    else if (own) add(byClass, foldFor(own.name, quirks), indexed);
    else if (type) add(byTag, type.lower, indexed);
    else rest.push(indexed);
  }
  const anyState = { quirks, state: 'any' } as const;
  return {
    byId,
    byClass,
    byTag,
    rest,
    quirks,
    anyState,
    ancestry: new Ancestry(all, quirks),
    ...namesAsked(all, quirks),
  };
}

function namesAsked(all: readonly IndexedSelector[], quirks: boolean): Pick<RuleIndex, 'classesAsked' | 'idsAsked'> {
  const classes = new Set<string>();
  const ids = new Set<string>();
  for (const { selector } of all)
    for (const simple of askedOfAll(selector.compounds.at(-1)!.simples)) {
      if (simple.kind === 'class') classes.add(foldFor(simple.name, quirks));
      else if (simple.kind === 'id') ids.add(foldFor(simple.name, quirks));
    }
  return { classesAsked: classes, idsAsked: ids };
}

/** Equal for elements of one place that an index answers alike, as far as it asks for names only. */
export function ownKey({ tag, namespace, id, classes }: ElementNode, index: RuleIndex): string {
  const { classesAsked, idsAsked, quirks } = index;
  let key = namespace === 'html' ? tag : `${namespace} ${tag}`;
  // a class holds no white space, an ID may
  for (const name of classes) if (classesAsked.has(foldFor(name, quirks))) key += `\n${name}`;
  return id !== undefined && idsAsked.has(foldFor(id, quirks)) ? `${key}\t${id}` : key;
}

const foldFor = (name: string, quirks: boolean): string => (quirks ? lowered(name) : name);

function add(map: Map<string, IndexedSelector[]>, key: string, indexed: IndexedSelector): void {
  const list = map.get(key);
  if (list) list.push(indexed);
  else map.set(key, [indexed]);
}

/** Whether an element can have such a pseudo-element at all. */
export function canHavePseudoElement(element: ElementNode, pseudoElement: string): boolean {
  const { tag } = element;
  switch (pseudoElement) {
    case '::placeholder':
      return (tag === 'input' || tag === 'textarea') && attributeOf(element, 'placeholder') !== undefined;
    case '::file-selector-button':
      return tag === 'input';
    case '::backdrop':
      return tag === 'dialog' || tag === 'video' || tag === 'html';
    case '::details-content':
      return tag === 'details';
    default:
      return true;
  }
}

/** The selectors whose last compound may match an element of this place; each once. */
export function candidatesFor(element: ElementNode, place: Place, index: RuleIndex): Candidates {
  const told: IndexedSelector[] = [];
  const open: IndexedSelector[] = [];
  const push = (list: readonly IndexedSelector[] | undefined): void => {
    if (!list || list.length === 0) return;
    const here = candidatesAt(place, list);
    for (const one of here.told) told.push(one);
    for (const one of here.open) open.push(one);
  };
  push(index.byTag.get(lowered(element.tag)));
  if (element.id !== undefined) push(index.byId.get(foldFor(element.id, index.quirks)));
  const { classes } = element;
  for (let i = 0; i < classes.length; i++) {
    const name = foldFor(classes[i]!, index.quirks);
    const list = index.byClass.get(name);
    if (list && !(i > 0 && isRepeated(classes, i, name, index.quirks))) push(list);
  }
  push(index.rest);
  return { told, open };
}

function isRepeated(classes: readonly string[], at: number, name: string, quirks: boolean): boolean {
  for (let i = 0; i < at; i++) if (foldFor(classes[i]!, quirks) === name) return true;
  return false;
}
