import { attributeOf, type ElementNode } from '../page/nodes.ts';
import type { MatchContext } from '../selectors/match.ts';
import { stateText } from '../selectors/stateText.ts';
import { compareSpecificity, type ComplexSelector, type SimpleSelector } from '../selectors/selector.ts';
import { parentElement } from '../page/parsePage.ts';
import type { ScopeRange } from './compiledRule.ts';
import type { AppliedRule, PageRules } from './pageRules.ts';

/** One complex selector of one applied rule, ready for matching. */
export interface IndexedSelector {
  readonly rule: AppliedRule;
  readonly selector: ComplexSelector;
  readonly pseudoElement: string;
  readonly layerRank: number;
  /** Order of appearance among the page's rules. */
  readonly order: number;
  readonly scopes: readonly ScopeRange[];
  /** The parent of the `style` element, for `@scope` without a start. */
  readonly owner: ElementNode | undefined;
  /** Place in ascending order of strength for normal declarations: layer, specificity, order of appearance. */
  position: number;
  /** What tells its entry in a match list from an equal block's: see StackSource. */
  readonly mark: string;
  /** Numbers of what it contributes, once asked for: when it surely matches, and when it matches in some states only. */
  sureId: number | undefined;
  perhapsId: number | undefined;
}

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
  /** Lists above of which some selector asks for more than the element's own type, classes and ID. */
  readonly beyondOwn: ReadonlySet<readonly IndexedSelector[]>;
  /** Numbers of match lists by the element's own type, classes and ID, where these tell; -1 where they do not. */
  readonly known: Map<string, number>;
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
      all.push({ rule, selector, pseudoElement, layerRank, order, scopes, owner, position: all.length, mark, sureId: undefined, perhapsId: undefined }); // prettier-ignore
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
  const lists = [...byId.values(), ...byClass.values(), ...byTag.values(), rest];
  const beyondOwn = new Set(lists.filter((list) => !list.every(asksForOwn)));
  return { byId, byClass, byTag, rest, quirks, anyState: { quirks, state: 'any' }, beyondOwn, known: new Map() };
}

const asksForOwn = ({ selector, scopes }: IndexedSelector): boolean =>
  scopes.length === 0 &&
  selector.compounds.length === 1 &&
  askedOfAll(selector.compounds[0]!.simples).every(({ kind }) => kind === 'type' || kind === 'class' || kind === 'id');

/** What an element must be in any case: `:where(.x)` and `:is(.x)` of one compound ask for no less than `.x` does. */
function askedOfAll(simples: readonly SimpleSelector[]): readonly SimpleSelector[] {
  if (!simples.some((simple) => simple.kind === 'matches')) return simples;
  return simples.flatMap((simple) => {
    const only = simple.kind === 'matches' && simple.list.length === 1 ? simple.list[0]! : undefined;
    const whole = only?.compounds.length === 1 && only.compounds[0]!.pseudoElement === undefined;
    return whole && simple.kind === 'matches' && /^(is|where)$/.test(simple.name) ? askedOfAll(only.compounds[0]!.simples) : [simple]; // prettier-ignore
  });
}

/** Equal for elements that an index answers alike, as far as it asks for their own type, classes and ID only. */
export function ownKey({ tag, namespace, id, classes }: ElementNode): string {
  let key = namespace === 'html' ? tag : `${namespace} ${tag}`;
  // a class holds no white space, an ID may
  for (const name of classes) key += `\n${name}`;
  return id === undefined ? key : `${key}\t${id}`;
}

/** Whether an element's own type, classes and ID tell all selectors that match it. */
export function tellsAll({ tag, id, classes }: ElementNode, index: RuleIndex): boolean {
  const { beyondOwn, byTag, byId, byClass, rest, quirks } = index;
  if (beyondOwn.size === 0) return true;
  const beyond = (list: readonly IndexedSelector[] | undefined): boolean => list !== undefined && beyondOwn.has(list);
  return !(
    beyond(rest) ||
    beyond(byTag.get(tag.toLowerCase())) ||
    (id !== undefined && beyond(byId.get(foldFor(id, quirks)))) ||
    classes.some((name) => beyond(byClass.get(foldFor(name, quirks))))
  );
}

const foldFor = (name: string, quirks: boolean): string => (quirks ? name.toLowerCase() : name);

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

/** The selectors whose last compound may match the element; each once. */
export function candidatesFor(element: ElementNode, index: RuleIndex, out: IndexedSelector[]): void {
  out.length = 0;
  push(out, index.byTag.get(element.tag.toLowerCase()));
  if (element.id !== undefined) push(out, index.byId.get(foldFor(element.id, index.quirks)));
  const { classes } = element;
  for (let i = 0; i < classes.length; i++) {
    const name = foldFor(classes[i]!, index.quirks);
    const list = index.byClass.get(name);
    if (!list || (i > 0 && isRepeated(classes, i, name, index.quirks))) continue;
    push(out, list);
  }
  push(out, index.rest);
}

function isRepeated(classes: readonly string[], at: number, name: string, quirks: boolean): boolean {
  for (let i = 0; i < at; i++) if (foldFor(classes[i]!, quirks) === name) return true;
  return false;
}

function push(out: IndexedSelector[], list: readonly IndexedSelector[] | undefined): void {
  if (list) for (const one of list) out.push(one);
}
