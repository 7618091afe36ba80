import { tableOf } from '../source/tableOf.ts';
import { lowered } from '../source/asciiCase.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { parentElement, previousElement } from '../page/parsePage.ts';
import type { Match, MatchContext } from './match.ts';
import { matchPseudoClass } from './matchPseudoClass.ts';
import type { ComplexSelector, CompoundSelector, SelectorList, SimpleSelector } from './selector.ts';

/** Whether a selector's last compound matches the element; its pseudo-element, if any, is the caller's business. */
export function matchSelector(element: ElementNode, selector: ComplexSelector, context: MatchContext): Match {
  const last = selector.compounds.length - 1;
  const here = matchCompound(element, selector.compounds[last]!, context);
  if (here === 0 || last === 0) return here;
  const steps = asksMore(selector) ? manySteps : 0;
  const rest = matchBefore(element, last, { selector, context, steps, known: undefined });
  return rest < here ? rest : here;
}

/** With `elementsOnly`, selectors for pseudo-elements match nothing: `&` stands for elements. */
export function matchList(
  element: ElementNode,
  list: SelectorList,
  context: MatchContext,
  elementsOnly = false,
): Match {
  let best: Match = 0;
  for (const selector of list) {
    if (elementsOnly && selector.compounds.at(-1)!.pseudoElement !== undefined) continue;
    const match = matchSelector(element, selector, context);
    if (match > best) best = match;
    if (best === 2) break;
  }
  return best;
}

/** What is known of one element for one selector, by number of the compound. */
interface KnownAnswers {
  /** The compounds up to this one, the last of them on this element. */
  readonly upTo: (Match | undefined)[];
  /** The compounds before this one, when this one is on this element. */
  readonly before: (Match | undefined)[];
}
type Known = WeakMap<ElementNode, KnownAnswers>;

/** One search for a selector's compounds; answers are kept once it turns out long, so that it never takes exponential time. */
interface Search {
  readonly selector: ComplexSelector;
  readonly context: MatchContext;
  /** Inside `:has()`: the element the first compound is led to by `leading`. */
  readonly anchor?: ElementNode;
  readonly leading?: string;
  steps: number;
  known: Known | undefined;
}

const manySteps = 64;
/** Kept from one search to the next, for elements at rest and in any state; not where states are held on or in scopes. */
const knownPaths = { any: new WeakMap<ComplexSelector, Known>(), rest: new WeakMap<ComplexSelector, Known>() };
const isPlain = (context: MatchContext): boolean => !context.forced && !context.scope;

/** Where states are held on or in scopes, from one part of a selector to the next. */
const knownHere = new WeakMap<MatchContext, WeakMap<ComplexSelector, Known>>();

function keptFor({ selector, context, anchor }: Search): Known {
  if (anchor) return new WeakMap();
  let paths = isPlain(context) ? knownPaths[context.state] : knownHere.get(context);
  if (!paths) knownHere.set(context, (paths = new WeakMap()));
  let known = paths.get(selector);
  if (!known) paths.set(selector, (known = new WeakMap()));
  return known;
}

const deep = new WeakMap<ComplexSelector, boolean>();

/** Whether each step asks for a path once more, as in rules nested in rules: without what is known from before that takes exponential time. */
function asksMore(selector: ComplexSelector): boolean {
  let known = deep.get(selector);
  if (known === undefined) {
    known = selector.compounds.some(({ simples }) =>
      simples.some(
        (simple) => simple.kind === 'matches' && simple.list.some((one) => one.compounds.length > 1 || asksMore(one)),
      ),
    );
    deep.set(selector, known);
  }
  return known;
}

function answersOf(known: Known, element: ElementNode): KnownAnswers {
  let answers = known.get(element);
  if (!answers) known.set(element, (answers = { upTo: [], before: [] }));
  return answers;
}

function matchUpTo(element: ElementNode, at: number, search: Search): Match {
  const known = search.known?.get(element)?.upTo[at];
  if (known !== undefined) return known;
  let match = matchCompound(element, search.selector.compounds[at]!, search.context);
  if (match !== 0) {
    const rest = at === 0 ? matchAnchor(element, search) : matchBefore(element, at, search);
    if (rest < match) match = rest;
  }
  if (search.known) answersOf(search.known, element).upTo[at] = match;
  return match;
}

function matchAnchor(element: ElementNode, { anchor, leading }: Search): Match {
  if (!anchor) return 2;
  for (const one of stepsBack(element, leading!)) if (one === anchor) return 2;
  return 0;
}

function matchBefore(element: ElementNode, at: number, search: Search): Match {
  const combinator = search.selector.combinators[at - 1]!;
  let best: Match = 0;
  let visited: ElementNode[] | undefined;
  for (const candidate of stepsBack(element, combinator)) {
    if (++search.steps > manySteps) search.known ??= keptFor(search);
    const match = matchUpTo(candidate, at - 1, search);
    if (match > best) best = match;
    if (best === 2) break;
    // what is left are the candidate's own steps back
    const rest = combinator === ' ' || combinator === '~' ? search.known?.get(candidate)?.before[at] : undefined;
    if (rest !== undefined) {
      if (rest > best) best = rest;
      break;
    }
    if (search.known) (visited ??= [element]).push(candidate);
  }
  if (search.known && (combinator === ' ' || combinator === '~')) {
    if (best === 0) for (const one of visited ?? [element]) answersOf(search.known, one).before[at] = 0;
    else answersOf(search.known, element).before[at] = best;
  }
  return best;
}

function* stepsBack(element: ElementNode, combinator: string): Iterable<ElementNode> {
  if (combinator === ' ') yield* ancestors(element);
  else if (combinator === '~') yield* earlierSiblings(element);
  else {
    const one = combinator === '>' ? parentElement(element) : previousElement(element);
    if (one) yield one;
  }
}

function* ancestors(element: ElementNode): Iterable<ElementNode> {
  for (let at = parentElement(element); at; at = parentElement(at)) yield at;
}

function* earlierSiblings(element: ElementNode): Iterable<ElementNode> {
  for (let i = element.siblingIndex - 1; i >= 0; i--) yield element.siblings[i]!;
}

export function matchCompound(element: ElementNode, compound: CompoundSelector, context: MatchContext): Match {
  // Quirks Mode Standard, "The :active and :hover quirk"
  if (compound.isBareHover && context.quirks && !isLink(element)) return 0;
  let match: Match = 2;
  for (const simple of compound.simples) {
    const one = matchSimple(element, simple, context);
    if (one === 0) return 0;
    if (one < match) match = one;
  }
  return match;
}

function matchSimple(element: ElementNode, simple: SimpleSelector, context: MatchContext): Match {
  switch (simple.kind) {
    case 'universal':
      return inNamespace(element, simple.namespace) ? 2 : 0;
    case 'type': {
      // HTML asks for the exact name on SVG elements; Chromium takes any case on every element of an HTML document
      return simple.lower === lowered(element.tag) && inNamespace(element, simple.namespace) ? 2 : 0;
    }
    case 'id':
      return element.id !== undefined && sameName(element.id, simple.name, context.quirks) ? 2 : 0;
    case 'class':
      return hasClass(element, simple.name, context.quirks) ? 2 : 0;
    case 'attribute':
      return matchAttribute(element, simple) ? 2 : 0;
    case 'matches': {
      const match = matchList(element, simple.list, context, simple.name === 'nesting');
      return simple.name === 'not' ? ((2 - match) as Match) : match;
    }
    case 'has':
      return matchHas(element, simple, context);
    case 'nth':
      return matchNth(element, simple, context);
    case 'pseudo-class':
      return matchPseudoClass(element, simple.name, simple.argument, context);
  }
}

const uris: Readonly<Record<string, string>> = tableOf({
  html: 'http://www.w3.org/1999/xhtml',
  svg: 'http://www.w3.org/2000/svg',
  mathml: 'http://www.w3.org/1998/Math/MathML',
});

const inNamespace = (element: ElementNode, namespace: string | undefined): boolean =>
  namespace === undefined || namespace === '*' || uris[element.namespace] === namespace;

/** ASCII case folding, as the Quirks Mode rules for names ask for. */

const sameName = (a: string, b: string, caseless: boolean): boolean =>
  a === b || (caseless && lowered(a) === lowered(b));

function hasClass(element: ElementNode, name: string, quirks: boolean): boolean {
  for (const own of element.classes) if (sameName(own, name, quirks)) return true;
  return false;
}

function matchAttribute(element: ElementNode, simple: Extract<SimpleSelector, { kind: 'attribute' }>): boolean {
  // HTML asks for the exact name on SVG elements; Chromium takes any case on every element of an HTML document
  const name = lowered(simple.name);
  for (const attribute of element.attributes) {
    const own = lowered(attribute.name);
    if (own !== name && !(attribute.prefix && `${attribute.prefix}:${own}` === name)) continue;
    if (simple.namespace === '' && attribute.prefix !== undefined && attribute.prefix !== '') continue;
    const caseless = simple.ignoreCase && (element.namespace === 'html' || simple.test !== '');
    const value = caseless ? lowered(attribute.value) : attribute.value;
    if (testAttribute(value, simple.test, caseless ? lowered(simple.value) : simple.value)) return true;
  }
  return false;
}

function testAttribute(value: string, test: string, wanted: string): boolean {
  switch (test) {
    case '':
      return true;
    case '=':
      return value === wanted;
    case '~=':
      return wanted !== '' && !/[\t\n\f\r ]/.test(wanted) && value.split(/[\t\n\f\r ]+/).includes(wanted);
    case '|=':
      return value === wanted || value.startsWith(`${wanted}-`);
    case '^=':
      return wanted !== '' && value.startsWith(wanted);
    case '$=':
      return wanted !== '' && value.endsWith(wanted);
    default:
      return wanted !== '' && value.includes(wanted);
  }
}

type HasSelector = Extract<SimpleSelector, { kind: 'has' }>;
type NthSelector = Extract<SimpleSelector, { kind: 'nth' }>;

/** Answers that many elements ask for again, for elements at rest and in any state; none where states are held on or in scopes. */
const knownHas = {
  any: new WeakMap<HasSelector, WeakMap<ElementNode, Match>>(),
  rest: new WeakMap<HasSelector, WeakMap<ElementNode, Match>>(),
};

function matchHas(element: ElementNode, simple: HasSelector, context: MatchContext): Match {
  if (!isPlain(context)) return searchHas(element, simple, context);
  let known = knownHas[context.state].get(simple);
  if (!known) knownHas[context.state].set(simple, (known = new WeakMap()));
  let match = known.get(element);
  if (match === undefined) known.set(element, (match = searchHas(element, simple, context)));
  return match;
}

/** Selectors 4, "Relational Pseudo-class: :has()". The argument's left end is anchored at the element. */
function searchHas(element: ElementNode, simple: HasSelector, context: MatchContext): Match {
  let best: Match = 0;
  for (const { combinator: leading, selector } of simple.list) {
    const match =
      selector.compounds.length === 1
        ? searchOne(element, selector.compounds[0]!, leading, context)
        : searchAnchored(element, selector, leading, context);
    if (match > best) best = match;
    if (best === 2) return 2;
  }
  return best;
}

function searchAnchored(
  element: ElementNode,
  selector: ComplexSelector,
  leading: string,
  context: MatchContext,
): Match {
  let best: Match = 0;
  const search: Search = { selector, context, anchor: element, leading, steps: 0, known: undefined };
  for (const candidate of candidatesFor(element, selector, leading)) {
    const match = matchUpTo(candidate, selector.compounds.length - 1, search);
    if (match > best) best = match;
    if (best === 2) return 2;
  }
  return best;
}

function candidatesFor(element: ElementNode, selector: ComplexSelector, leading: string): Iterable<ElementNode> {
  if (leading === ' ' || leading === '>') return descendants(element);
  const staysInside = selector.combinators.every((one) => one === ' ' || one === '>');
  const next = element.siblings[element.siblingIndex + 1];
  return leading === '+' && staysInside ? (next ? descendants(next) : []) : laterFamily(element);
}

/** By compound: what was found below an element, or behind it among its siblings. */
type Around = WeakMap<
  CompoundSelector,
  { readonly below: WeakMap<ElementNode, Match>; readonly behind: WeakMap<ElementNode, Match> }
>;
const knownAround: { readonly any: Around; readonly rest: Around } = { any: new WeakMap(), rest: new WeakMap() };

/** An argument of one compound: whole families share what was found, so that no element is looked at once for each of its ancestors. */
function searchOne(element: ElementNode, compound: CompoundSelector, leading: string, context: MatchContext): Match {
  const next = element.siblings[element.siblingIndex + 1];
  if (leading === '+') return next ? matchCompound(next, compound, context) : 0;
  let around = isPlain(context) ? knownAround[context.state].get(compound) : undefined;
  if (!around) {
    around = { below: new WeakMap(), behind: new WeakMap() };
    if (isPlain(context)) knownAround[context.state].set(compound, around);
  }
  if (leading === '~') return findBehind(element, around.behind, (one) => matchCompound(one, compound, context));
  if (leading === ' ') return findBelow(element, around.below, (one) => matchCompound(one, compound, context));
  let best: Match = 0;
  for (const child of element.children) {
    if (child.type !== 'element') continue;
    const match = matchCompound(child, compound, context);
    if (match > best) best = match;
    if (best === 2) break;
  }
  return best;
}

function findBehind(
  element: ElementNode,
  known: WeakMap<ElementNode, Match>,
  matchOf: (one: ElementNode) => Match,
): Match {
  const { siblings, siblingIndex } = element;
  let at = siblingIndex;
  while (at < siblings.length && !known.has(siblings[at]!)) at++;
  let best: Match = at < siblings.length ? known.get(siblings[at]!)! : 0;
  // from the last one on: nothing stands behind it
  for (at = Math.min(at, siblings.length) - 1; at >= siblingIndex; at--) {
    const next = siblings[at + 1];
    const match = next && best < 2 ? matchOf(next) : 0;
    if (match > best) best = match;
    known.set(siblings[at]!, best);
  }
  return known.get(element)!;
}

function findBelow(
  element: ElementNode,
  known: WeakMap<ElementNode, Match>,
  matchOf: (one: ElementNode) => Match,
): Match {
  const found = known.get(element);
  if (found !== undefined) return found;
  // children first, so that what is below each is known when it is asked for
  const order: ElementNode[] = [];
  const stack = [element];
  for (let at = stack.pop(); at; at = stack.pop()) {
    if (known.has(at)) continue;
    order.push(at);
    for (const child of at.children) if (child.type === 'element') stack.push(child);
  }
  for (const one of order.reverse()) {
    let best: Match = 0;
    for (const child of one.children) {
      if (child.type !== 'element') continue;
      const below = known.get(child)!;
      const match = below === 2 ? 2 : matchOf(child);
      if (match > best) best = match;
      if (below > best) best = below;
      if (best === 2) break;
    }
    known.set(one, best);
  }
  return known.get(element)!;
}

/** In document order, without a call per level of depth. */
function* descendants(element: ElementNode): Iterable<ElementNode> {
  const levels = [{ children: element.children, at: 0 }];
  while (levels.length > 0) {
    const level = levels.at(-1)!;
    const child = level.children[level.at++];
    if (!child) levels.pop();
    else if (child.type === 'element') {
      yield child;
      if (child.children.length > 0) levels.push({ children: child.children, at: 0 });
    }
  }
}

function* laterFamily(element: ElementNode): Iterable<ElementNode> {
  for (let i = element.siblingIndex + 1; i < element.siblings.length; i++) {
    yield element.siblings[i]!;
    yield* descendants(element.siblings[i]!);
  }
}

/** Selectors 4, "Child-indexed Pseudo-classes". */
function matchNth(element: ElementNode, simple: NthSelector, context: MatchContext): Match {
  const own = simple.of ? matchList(element, simple.of, context) : 2;
  if (own === 0) return 0;
  const { siblings, siblingIndex } = element;
  let sure = simple.last ? siblings.length - siblingIndex : siblingIndex + 1;
  let perhaps = 0;
  if (simple.ofType) sure = countOfType(element, simple.last);
  else if (simple.of) [sure, perhaps] = countOf(element, simple, context);
  let hits = 0;
  for (let n = sure; n <= sure + perhaps; n++) if (isNth(n, simple.step, simple.offset)) hits++;
  if (hits === 0) return 0;
  return hits === perhaps + 1 ? own : 1;
}

/** Of a family of siblings: how many of its own type stand up to each one, itself included, and how many of each type there are. */
interface TypeCounts {
  readonly upTo: readonly number[];
  readonly all: ReadonlyMap<string, number>;
}
const knownTypeCounts = new WeakMap<readonly ElementNode[], TypeCounts>();

function countOfType({ siblings, siblingIndex, namespace, tag }: ElementNode, last: boolean): number {
  let counts = knownTypeCounts.get(siblings);
  if (!counts) {
    const all = new Map<string, number>();
    const upTo = siblings.map((one) => {
      const type = `${one.namespace} ${one.tag}`;
      const count = (all.get(type) ?? 0) + 1;
      all.set(type, count);
      return count;
    });
    knownTypeCounts.set(siblings, (counts = { upTo, all }));
  }
  const here = counts.upTo[siblingIndex]!;
  return last ? counts.all.get(`${namespace} ${tag}`)! - here + 1 : here;
}

/** Of a family of siblings, how many up to each place surely or perhaps match the list. */
interface Counts {
  readonly sure: readonly number[];
  readonly perhaps: readonly number[];
}
const knownCounts = {
  any: new WeakMap<NthSelector, WeakMap<readonly ElementNode[], Counts>>(),
  rest: new WeakMap<NthSelector, WeakMap<readonly ElementNode[], Counts>>(),
};

/** The element itself counts as sure. */
function countOf(element: ElementNode, simple: NthSelector, context: MatchContext): readonly [number, number] {
  const { siblings, siblingIndex: i } = element;
  let counts = isPlain(context) ? knownCounts[context.state].get(simple)?.get(siblings) : undefined;
  if (!counts) {
    counts = countSiblings(siblings, simple.of!, context);
    if (isPlain(context)) {
      let known = knownCounts[context.state].get(simple);
      if (!known) knownCounts[context.state].set(simple, (known = new WeakMap()));
      known.set(siblings, counts);
    }
  }
  const { sure, perhaps } = counts;
  const between = (list: readonly number[]): number => (simple.last ? list.at(-1)! - list[i + 1]! : list[i]!);
  return [between(sure) + 1, between(perhaps)];
}

function countSiblings(siblings: readonly ElementNode[], list: SelectorList, context: MatchContext): Counts {
  const sure = [0];
  const perhaps = [0];
  for (const [i, sibling] of siblings.entries()) {
    const match = matchList(sibling, list, context);
    sure.push(sure[i]! + (match === 2 ? 1 : 0));
    perhaps.push(perhaps[i]! + (match === 1 ? 1 : 0));
  }
  return { sure, perhaps };
}

function isNth(n: number, step: number, offset: number): boolean {
  if (step === 0) return n === offset;
  const k = (n - offset) / step;
  return k >= 0 && Number.isInteger(k);
}

export const isLink = (element: ElementNode): boolean =>
  (element.tag === 'a' || element.tag === 'area') && attributeOf(element, 'href') !== undefined;
