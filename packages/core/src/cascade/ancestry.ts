import { lowered } from '../source/asciiCase.ts';
import type { IndexedSelector, MatchedSelector } from './indexedSelector.ts';
import type { ElementNode } from '../page/nodes.ts';
import { parentElement } from '../page/parsePage.ts';
import type { CompoundSelector, SimpleSelector } from '../selectors/selector.ts';

/** Elements above which stand the same of the names that selectors of an index ask of ancestors. */
export interface Place {
  /** Undefined where there are too many places to tell apart: anything may stand above then. */
  readonly names: ReadonlySet<string> | undefined;
  /** The places of children, by what their parent adds to the names. */
  readonly inside: Map<string, Place>;
  /** Of a list of selectors those whose ancestors may be there. */
  readonly candidates: Map<readonly IndexedSelector[], Candidates>;
  /** What is known of its elements by their names: in any state, and at rest. */
  readonly any: Map<string, Answers>;
  readonly rest: Map<string, Answers>;
}

/** Selectors that may match elements of a place. */
export interface Candidates {
  /** Place and names of an element tell whether they match. */
  readonly told: readonly IndexedSelector[];
  /** The others. */
  readonly open: readonly IndexedSelector[];
}

/** What matches elements of one place and of equal names. */
export interface Answers {
  /** Of what is told. */
  readonly sure: readonly MatchedSelector[];
  /** What is to be asked of each element. */
  readonly open: readonly IndexedSelector[];
  /** By what of the open ones matches: all that does, weakest first, and its number. */
  readonly matched: Map<string, readonly MatchedSelector[]>;
  readonly numbers: Map<string, number>;
}

/** What is inside elements, as far as it was asked. A `WeakMap` where nothing says which page they are of. */
interface InsideOf {
  get(element: ElementNode): Place | undefined;
  set(element: ElementNode, place: Place): void;
}

/** The same for one page, without what weak references cost. */
export class PagePlaces implements InsideOf {
  private readonly places: (Place | undefined)[];

  constructor({ length }: readonly ElementNode[]) {
    this.places = Array.from<undefined>({ length });
  }

  get({ index }: ElementNode): Place | undefined {
    return this.places[index];
  }

  set({ index }: ElementNode, place: Place): void {
    this.places[index] = place;
  }
}

/** More than any site has; each keeps lists of its own. */
const mostPlaces = 3000;

/** Tells by the names above an element which selectors cannot match it, without looking at its ancestors one by one for each. */
export class Ancestry {
  private readonly asked = new Set<string>();
  private readonly root = makePlace(new Set());
  private readonly anywhere = makePlace(undefined);
  private readonly anyPage = new WeakMap<ElementNode, Place>();
  private count = 1;
  private readonly quirks: boolean;

  constructor(all: readonly IndexedSelector[], quirks: boolean) {
    this.quirks = quirks;
    for (const { above } of all) for (const name of above) this.asked.add(name);
  }

  placeOf(element: ElementNode, insideOf: InsideOf = this.anyPage): Place {
    if (this.asked.size === 0) return this.root;
    const unknown: ElementNode[] = [];
    let at = parentElement(element);
    let place: Place | undefined;
    for (; at; at = parentElement(at)) {
      place = insideOf.get(at);
      if (place) break;
      unknown.push(at);
    }
    place ??= this.root;
    for (let i = unknown.length - 1; i >= 0; i--) {
      place = this.inside(place, unknown[i]!);
      insideOf.set(unknown[i]!, place);
    }
    return place;
  }

  private inside(place: Place, element: ElementNode): Place {
    const { names } = place;
    if (!names) return place;
    let key = '';
    const added: string[] = [];
    for (const name of ancestorNames(element, this.quirks)) {
      if (!this.asked.has(name) || names.has(name) || added.includes(name)) continue;
      added.push(name);
      key += `${name} `;
    }
    if (added.length === 0) return place;
    let known = place.inside.get(key);
    if (!known) {
      known = this.count++ < mostPlaces ? makePlace(new Set([...names, ...added])) : this.anywhere;
      place.inside.set(key, known);
    }
    return known;
  }
}

const makePlace = (names: ReadonlySet<string> | undefined): Place => ({
  names,
  inside: new Map(),
  candidates: new Map(),
  any: new Map(),
  rest: new Map(),
});

export function candidatesAt(place: Place, list: readonly IndexedSelector[]): Candidates {
  let known = place.candidates.get(list);
  if (!known) {
    const { names } = place;
    const told: IndexedSelector[] = [];
    const open: IndexedSelector[] = [];
    for (const one of list) {
      if (names && !one.above.every((name) => names.has(name))) continue;
      (isTold(one, names !== undefined) ? told : open).push(one);
    }
    known = { told, open };
    place.candidates.set(list, known);
  }
  return known;
}

/** What an element is called by, as ancestors are asked for: `div`, `.menu`, `#head`. In quirks mode letters of ASCII are one in both cases. */
function ancestorNames({ tag, id, classes }: ElementNode, quirks: boolean): readonly string[] {
  const names = [lowered(tag)];
  for (const name of classes) names.push(`.${foldAscii(name, quirks)}`);
  if (id !== undefined) names.push(`#${foldAscii(id, quirks)}`);
  return names;
}

/**
 * What must stand above any element that the selector matches. Selectors 4, "Combinators": what is left of a descendant or child
 * combinator is an ancestor of the subject, also where siblings stand between.
 */
export function namesAbove(
  compounds: readonly CompoundSelector[],
  combinators: readonly string[],
  quirks: boolean,
): readonly string[] {
  const out = new Set<string>();
  combinators.forEach((combinator, i) => {
    if (combinator !== ' ' && combinator !== '>') return;
    for (const simple of askedOfAll(compounds[i]!.simples)) {
      const name = nameAsked(simple, quirks);
      if (name !== undefined) out.add(name);
    }
  });
  return out.size === 0 ? nothing : [...out];
}

const nothing: readonly string[] = [];

function nameAsked(simple: SimpleSelector, quirks: boolean): string | undefined {
  if (simple.kind === 'type') return simple.lower;
  if (simple.kind === 'class') return `.${foldAscii(simple.name, quirks)}`;
  return simple.kind === 'id' ? `#${foldAscii(simple.name, quirks)}` : undefined;
}

const foldAscii = (name: string, quirks: boolean): string => (quirks ? lowered(name) : name);

/** What an element must be in any case: `:where(.x)` and `:is(.x)` of one compound ask for no less than `.x` does. */
export function askedOfAll(simples: readonly SimpleSelector[]): readonly SimpleSelector[] {
  if (!simples.some((simple) => simple.kind === 'matches')) return simples;
  return simples.flatMap((simple) => {
    const only = simple.kind === 'matches' && simple.list.length === 1 ? simple.list[0]! : undefined;
    const whole = only?.compounds.length === 1 && only.compounds[0]!.pseudoElement === undefined;
    return whole && simple.kind === 'matches' && /^(is|where)$/.test(simple.name)
      ? askedOfAll(only.compounds[0]!.simples)
      : [simple];
  });
}

const isName = ({ kind }: SimpleSelector): boolean => kind === 'type' || kind === 'class' || kind === 'id';

/** It asks for nothing but names of the element and, where it is known what stands above, for one name above it. */
function isTold({ selector, scopes, pseudoElement }: IndexedSelector, knowsAbove: boolean): boolean {
  const { compounds, combinators } = selector;
  // which elements have a placeholder hangs on an attribute
  if (scopes.length > 0 || compounds.length > 2 || pseudoElement === '::placeholder') return false;
  if (!askedOfAll(compounds.at(-1)!.simples).every(isName)) return false;
  if (compounds.length === 1) return true;
  const [only, ...others] = askedOfAll(compounds[0]!.simples);
  if (!knowsAbove || combinators[0] !== ' ' || !only || others.length > 0) return false;
  return isName(only) && (only.kind !== 'type' || only.namespace === undefined);
}
