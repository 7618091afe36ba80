import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { parentElement, previousElement } from '../page/parsePage.ts';
import type { Match, MatchContext } from './match.ts';
import { matchPseudoClass } from './matchPseudoClass.ts';
import type { ComplexSelector, CompoundSelector, SelectorList, SimpleSelector } from './selector.ts';

/** Whether a selector's last compound matches the element; its pseudo-element, if any, is the caller's business. */
export function matchSelector(element: ElementNode, selector: ComplexSelector, context: MatchContext): Match {
  return matchUpTo(element, selector, selector.compounds.length - 1, context);
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

function matchUpTo(element: ElementNode, selector: ComplexSelector, at: number, context: MatchContext): Match {
  const here = matchCompound(element, selector.compounds[at]!, context);
  if (here === 0 || at === 0) return here;
  const rest = matchBefore(element, selector, at, context);
  return rest < here ? rest : here;
}

function matchBefore(element: ElementNode, selector: ComplexSelector, at: number, context: MatchContext): Match {
  switch (selector.combinators[at - 1]!) {
    case '>': {
      const parent = parentElement(element);
      return parent ? matchUpTo(parent, selector, at - 1, context) : 0;
    }
    case '+': {
      const previous = previousElement(element);
      return previous ? matchUpTo(previous, selector, at - 1, context) : 0;
    }
    case ' ':
      return bestOf(ancestors(element), selector, at - 1, context);
    case '~':
      return bestOf(earlierSiblings(element), selector, at - 1, context);
  }
}

function bestOf(
  candidates: Iterable<ElementNode>,
  selector: ComplexSelector,
  at: number,
  context: MatchContext,
): Match {
  let best: Match = 0;
  for (const candidate of candidates) {
    const match = matchUpTo(candidate, selector, at, context);
    if (match > best) best = match;
    if (best === 2) break;
  }
  return best;
}

function* ancestors(element: ElementNode): Iterable<ElementNode> {
  for (let at = parentElement(element); at; at = parentElement(at)) yield at;
}

function* earlierSiblings(element: ElementNode): Iterable<ElementNode> {
  for (let i = element.siblingIndex - 1; i >= 0; i--) yield element.siblings[i]!;
}

export function matchCompound(element: ElementNode, compound: CompoundSelector, context: MatchContext): Match {
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
      return simple.lower === element.tag.toLowerCase() && inNamespace(element, simple.namespace) ? 2 : 0;
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

const uris: Readonly<Record<string, string>> = {
  html: 'http://www.w3.org/1999/xhtml',
  svg: 'http://www.w3.org/2000/svg',
  mathml: 'http://www.w3.org/1998/Math/MathML',
};

const inNamespace = (element: ElementNode, namespace: string | undefined): boolean =>
  namespace === undefined || namespace === '*' || uris[element.namespace] === namespace;

/** ASCII case folding, as the Quirks Mode rules for names ask for. */
const fold = (text: string): string => text.replace(/[A-Z]+/g, (upper) => upper.toLowerCase());

const sameName = (a: string, b: string, caseless: boolean): boolean => a === b || (caseless && fold(a) === fold(b));

function hasClass(element: ElementNode, name: string, quirks: boolean): boolean {
  for (const own of element.classes) if (sameName(own, name, quirks)) return true;
  return false;
}

function matchAttribute(element: ElementNode, simple: Extract<SimpleSelector, { kind: 'attribute' }>): boolean {
  // HTML asks for the exact name on SVG elements; Chromium takes any case on every element of an HTML document
  const name = simple.name.toLowerCase();
  for (const attribute of element.attributes) {
    const own = attribute.name.toLowerCase();
    if (own !== name && !(attribute.prefix && `${attribute.prefix}:${own}` === name)) continue;
    if (simple.namespace === '' && attribute.prefix !== undefined && attribute.prefix !== '') continue;
    const caseless = simple.ignoreCase && (element.namespace === 'html' || simple.test !== '');
    const value = caseless ? fold(attribute.value) : attribute.value;
    if (testAttribute(value, simple.test, caseless ? fold(simple.value) : simple.value)) return true;
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

/** Selectors 4, "Relational Pseudo-class: :has()". The argument's left end is anchored at the element. */
function matchHas(
  element: ElementNode,
  simple: Extract<SimpleSelector, { kind: 'has' }>,
  context: MatchContext,
): Match {
  let best: Match = 0;
  for (const { combinator, selector } of simple.list) {
    const inside = combinator === ' ' || combinator === '>';
    for (const candidate of inside ? descendants(element) : laterFamily(element)) {
      const match = matchAnchored(candidate, selector, selector.compounds.length - 1, element, combinator, context);
      if (match > best) best = match;
      if (best === 2) return 2;
    }
  }
  return best;
}

function* descendants(element: ElementNode): Iterable<ElementNode> {
  for (const child of element.children)
    if (child.type === 'element') {
      yield child;
      yield* descendants(child);
    }
}

function* laterFamily(element: ElementNode): Iterable<ElementNode> {
  for (let i = element.siblingIndex + 1; i < element.siblings.length; i++) {
    yield element.siblings[i]!;
    yield* descendants(element.siblings[i]!);
  }
}

function matchAnchored(
  candidate: ElementNode,
  selector: ComplexSelector,
  at: number,
  anchor: ElementNode,
  leading: string,
  context: MatchContext,
): Match {
  const here = matchCompound(candidate, selector.compounds[at]!, context);
  if (here === 0) return 0;
  if (at === 0) return isLedTo(candidate, anchor, leading) ? here : 0;
  let best: Match = 0;
  for (const next of stepsBack(candidate, selector.combinators[at - 1]!)) {
    const match = matchAnchored(next, selector, at - 1, anchor, leading, context);
    if (match > best) best = match;
    if (best === 2) break;
  }
  return best < here ? best : here;
}

function* stepsBack(element: ElementNode, combinator: string): Iterable<ElementNode> {
  if (combinator === ' ') yield* ancestors(element);
  else if (combinator === '~') yield* earlierSiblings(element);
  else {
    const one = combinator === '>' ? parentElement(element) : previousElement(element);
    if (one) yield one;
  }
}

function isLedTo(candidate: ElementNode, anchor: ElementNode, leading: string): boolean {
  for (const one of stepsBack(candidate, leading)) if (one === anchor) return true;
  return false;
}

function matchNth(
  element: ElementNode,
  simple: Extract<SimpleSelector, { kind: 'nth' }>,
  context: MatchContext,
): Match {
  const own = simple.of ? matchList(element, simple.of, context) : 2;
  if (own === 0) return 0;
  const siblings = element.siblings;
  const step = simple.last ? 1 : -1;
  let sure = 1;
  let perhaps = 0;
  for (let i = element.siblingIndex + step; i >= 0 && i < siblings.length; i += step) {
    const other = siblings[i]!;
    if (simple.ofType && (other.tag !== element.tag || other.namespace !== element.namespace)) continue;
    const counts = simple.of ? matchList(other, simple.of, context) : 2;
    if (counts === 2) sure++;
    else if (counts === 1) perhaps++;
  }
  let hits = 0;
  for (let n = sure; n <= sure + perhaps; n++) if (isNth(n, simple.step, simple.offset)) hits++;
  if (hits === 0) return 0;
  return hits === perhaps + 1 ? own : 1;
}

function isNth(n: number, step: number, offset: number): boolean {
  if (step === 0) return n === offset;
  const k = (n - offset) / step;
  return k >= 0 && Number.isInteger(k);
}

export const isLink = (element: ElementNode): boolean =>
  (element.tag === 'a' || element.tag === 'area') && attributeOf(element, 'href') !== undefined;
