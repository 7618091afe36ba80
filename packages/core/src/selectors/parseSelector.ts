import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { tokensOf, tokenTypes as T, type Tokens } from '../sheet/tokens.ts';
import { unescapeCss } from '../values/unescape.ts';
import { takesClassAfter, takesElementAfter, takesListAfter } from './afterElement.ts';
import { parseAnPlusB } from './anPlusB.ts';
import { isArgument, takesCompound } from './pseudoArgument.ts';
import {
  functionalPseudoElements,
  isPlainElement,
  oneColonElements,
  stateClasses,
  textArgumentClasses,
  treeClasses,
} from './pseudoTable.ts';
import type {
  AttributeTest,
  Combinator,
  ComplexSelector,
  CompoundSelector,
  RelativeSelector,
  SelectorList,
  SimpleSelector,
} from './selector.ts';
import { specificityOf } from './specificity.ts';

export interface SelectorContext {
  /** What `&` stands for: the selectors of the rule around. Absent at top level, where `&` is `:scope`. */
  readonly parent?: SelectorList;
  /** Straight inside `@scope`: a selector that says neither `&` nor `:scope` hangs under the scoping root, adding no specificity. */
  readonly scoped?: boolean;
  /** Namespace prefixes declared in the sheet; '' is the default one. */
  readonly namespaces?: ReadonlyMap<string, string>;
}

/**
 * The selectors of a rule's prelude, or undefined when a browser drops the rule for them.
 *
 * Selectors 4, "Selector Syntax and Validity"; `:is()` and `:where()` are forgiving. With a parent, selectors are relative
 * to it as CSS Nesting 1, "Syntax", says.
 */
export const parseSelectorList = (text: string, context: SelectorContext = {}): SelectorList | undefined =>
  read(new Reader(tokensOf(text), context));

/** The selectors as any browser may read them, of those that ours drops as well; undefined where none can. */
export const selectorsOfAnyBrowser = (text: string, context: SelectorContext = {}): SelectorList | undefined =>
  readByBoth(text, context).any;

/** What our browser reads, and what any may: the same list, unless a name is in it that ours does not know. */
export function readByBoth(
  text: string,
  context: SelectorContext = {},
): { readonly ours: SelectorList | undefined; readonly any: SelectorList | undefined } {
  const notes = { beyond: false };
  const any = read(new Reader(tokensOf(text), context, notes));
  return { ours: notes.beyond ? parseSelectorList(text, context) : any, any };
}

function read(reader: Reader): SelectorList | undefined {
  try {
    return reader.whole();
  } catch (error) {
    if (error === invalid) return undefined;
    throw error;
  }
}

/** Thrown inside the reader only, to leave a selector a browser would not take. */
const invalid = new Error('invalid selector');
const maxDepth = 60;

const isBareHover = (simples: readonly SimpleSelector[]): boolean =>
  simples.some((s) => s.kind === 'pseudo-class') &&
  simples.every((s) => s.kind === 'universal' || (s.kind === 'pseudo-class' && /^(hover|active)$/.test(s.name)));

class Reader {
  private at = 0;
  private depth = 0;
  private insideHas = false;
  /** The pseudo-element that all of this says something of: in the brackets of `::part(a):not(…)`. */
  private after: string | undefined;
  private readonly t: Tokens;
  private readonly context: SelectorContext;
  /** Given where names that ours does not know are taken as well: whether there was one. */
  private readonly notes: { beyond: boolean } | undefined;

  constructor(tokens: Tokens, context: SelectorContext, notes?: { beyond: boolean }) {
    this.t = tokens;
    this.context = context;
    this.notes = notes;
  }

  whole(): SelectorList {
    return this.list(this.context.parent !== undefined || this.context.scoped === true);
  }

  /** What ours does not take another browser may: each such name matches in some state. */
  private onlyElsewhere(): void {
    if (!this.notes) throw invalid;
    this.notes.beyond = true;
  }

  list(relative: boolean): ComplexSelector[] {
    const out: ComplexSelector[] = [];
    do {
      out.push(relative ? this.nestedSelector() : this.complex());
      this.space();
    } while (this.take(T.Comma));
    if (this.at < this.t.count) throw invalid;
    return out;
  }

  /** A selector in a nested rule: without `&` it hangs under the parent by its leading combinator or a descendant one. */
  private nestedSelector(): ComplexSelector {
    this.space();
    const start = this.at;
    const leading = this.combinatorSign();
    const inner = this.complex();
    const { parent } = this.context;
    if (leading === undefined && (this.saidNesting(start) || (!parent && this.saidScope(start)))) return inner;
    return join(parent ? nesting(parent) : scopeClass, leading ?? ' ', inner);
  }

  private saidNesting(from: number): boolean {
    for (let i = from; i < this.at; i++) if (this.isDelim(i, '&')) return true;
    return false;
  }

  private saidScope(from: number): boolean {
    const text = this.t.text.slice(this.t.start[from], this.at < this.t.count ? this.t.start[this.at] : undefined);
    return /(^|[^\\:]):scope(?![-\w])/i.test(text);
  }

  private complex(): ComplexSelector {
    this.space();
    const first = this.at;
    const compounds: CompoundSelector[] = [this.compound()];
    const combinators: Combinator[] = [];
    for (;;) {
      const combinator = this.combinator();
      if (combinator === undefined) break;
      if (compounds.at(-1)!.pseudoElement !== undefined) throw invalid;
      combinators.push(combinator);
      compounds.push(this.compound());
    }
    const text = trimmed(this.t.text.slice(this.t.start[first], this.t.end[this.lastSolid()]));
    return { compounds, combinators, specificity: specificityOf(compounds), text };
  }

  private lastSolid(): number {
    let i = this.at - 1;
    while (i > 0 && (this.t.type[i] === T.WhiteSpace || this.t.type[i] === T.Comment)) i--;
    return i;
  }

  private combinator(): Combinator | undefined {
    const spaced = this.space();
    const sign = this.combinatorSign();
    if (sign !== undefined) return sign;
    const type = this.t.type[this.at];
    if (!spaced || type === undefined || type === T.Comma || type === T.RightParenthesis) return undefined;
    return ' ';
  }

  private combinatorSign(): Combinator | undefined {
    for (const sign of ['>', '+', '~'] as const)
      if (this.isDelim(this.at, sign)) {
        this.at++;
        this.space();
        return sign;
      }
    return undefined;
  }

  private compound(): CompoundSelector {
    const simples: SimpleSelector[] = [];
    let pseudoElement: string | undefined;
    const type = this.typeOrUniversal();
    if (type) simples.push(type);
    for (;;) {
      this.comments();
      const before = this.at;
      if (this.is(T.Hash)) simples.push(this.idSelector());
      else if (this.isDelim(this.at, '.')) simples.push(this.classSelector());
      else if (this.is(T.LeftSquareBracket)) simples.push(this.attribute());
      else if (this.isDelim(this.at, '&')) {
        this.at++;
        simples.push(this.context.parent ? nesting(this.context.parent) : scopeClass);
      } else if (this.is(T.Colon)) {
        const pseudo = this.pseudo(pseudoElement ?? this.after);
        if (typeof pseudo === 'string') pseudoElement = pseudo;
        else simples.push(pseudo);
      } else break;
      if (pseudoElement !== undefined && simples.length > 0 && before < this.at && !this.colonBefore(before))
        throw invalid;
    }
    if (simples.length === 0 && pseudoElement === undefined) throw invalid;
    if (this.after !== undefined && simples.some(({ kind }) => !/^(pseudo-class|matches)$/.test(kind)))
      this.onlyElsewhere();
    return this.depth === 0 && pseudoElement === undefined && isBareHover(simples)
      ? { simples, pseudoElement, isBareHover: true }
      : { simples, pseudoElement };
  }

  private colonBefore(at: number): boolean {
    return this.t.type[at] === T.Colon;
  }

  private typeOrUniversal(): SimpleSelector | undefined {
    const named = this.is(T.Ident) || this.isDelim(this.at, '*');
    if (!named && !this.isDelim(this.at, '|')) return undefined;
    let namespace: string | undefined;
    if (named && this.isDelim(this.at + 1, '|') && this.nameAt(this.at + 2)) {
      namespace = this.isDelim(this.at, '*') ? '*' : this.namespaceUri(this.ident());
      if (namespace === '*') this.at++;
      this.at++;
    } else if (!named) {
      if (!this.nameAt(this.at + 1)) throw invalid;
      this.at++;
      namespace = '';
    }
    if (this.isDelim(this.at, '*')) {
      this.at++;
      return { kind: 'universal', namespace: namespace ?? this.context.namespaces?.get('') };
    }
    const name = this.ident();
    return { kind: 'type', name, lower: lowered(name), namespace: namespace ?? this.context.namespaces?.get('') };
  }

  private nameAt(i: number): boolean {
    return this.t.type[i] === T.Ident || this.isDelim(i, '*');
  }

  private namespaceUri(prefix: string): string {
    const uri = this.context.namespaces?.get(prefix);
    if (uri === undefined || prefix === '') throw invalid;
    return uri;
  }

  private idSelector(): SimpleSelector {
    const raw = this.raw(this.at++).slice(1);
    // a hash that is no identifier, such as #1a, is not an ID selector
    if (/^(-?[0-9]|-$)/.test(raw)) throw invalid;
    return { kind: 'id', name: unescapeCss(raw) };
  }

  private classSelector(): SimpleSelector {
    this.at++;
    if (!this.is(T.Ident)) throw invalid;
    return { kind: 'class', name: this.ident() };
  }

  private attribute(): SimpleSelector {
    this.at++;
    this.space();
    let namespace: string | undefined = '';
    if (this.isDelim(this.at, '*') && this.isDelim(this.at + 1, '|')) {
      namespace = '*';
      this.at += 2;
    } else if (this.isDelim(this.at, '|')) this.at++;
    else if (this.is(T.Ident) && this.isDelim(this.at + 1, '|') && this.t.type[this.at + 2] === T.Ident) {
      namespace = this.namespaceUri(this.ident());
      this.at++;
    }
    if (!this.is(T.Ident)) throw invalid;
    const name = this.ident();
    this.space();
    if (this.take(T.RightSquareBracket))
      return { kind: 'attribute', name, test: '', value: '', ignoreCase: false, namespace };
    const test = this.attributeTest();
    this.space();
    const value = this.attributeValue();
    this.space();
    const ignoreCase = this.caseFlag(name);
    this.space();
    if (this.at < this.t.count && !this.take(T.RightSquareBracket)) throw invalid;
    return { kind: 'attribute', name, test, value, ignoreCase, namespace };
  }

  private attributeTest(): AttributeTest {
    let sign = '';
    while (this.is(T.Delim) && sign.length < 2) sign += this.raw(this.at++);
    if (!['=', '~=', '|=', '^=', '$=', '*='].includes(sign)) throw invalid;
    return sign as AttributeTest;
  }

  private attributeValue(): string {
    if (this.is(T.Ident)) return this.ident();
    if (!this.is(T.String)) throw invalid;
    const raw = this.raw(this.at++);
    return unescapeCss(raw.slice(1, raw.length > 1 && raw.endsWith(raw[0]!) ? -1 : undefined));
  }

  /** `i` asks for it; HTML, "Case-sensitivity of selectors", lists names whose values ignore case anyway. */
  private caseFlag(name: string): boolean {
    if (!this.is(T.Ident)) return caselessAttributes.has(lowered(name));
    const flag = lowered(this.ident());
    if (flag === 'i') return true;
    if (flag !== 's') throw invalid;
    this.onlyElsewhere(); // Chromium takes no "s" flag
    return false;
  }

  private pseudo(before: string | undefined): SimpleSelector | string {
    this.at++;
    this.comments();
    const double = this.take(T.Colon);
    this.comments();
    if (this.is(T.Ident)) {
      const name = lowered(this.ident());
      if (double || oneColonElements.has(name)) {
        if (!isPlainElement(name)) this.onlyElsewhere();
        return this.pseudoElement(before, `::${name}`);
      }
      if (!stateClasses.has(name) && !treeClasses.has(name)) this.onlyElsewhere();
      return this.pseudoClass(before, name, undefined);
    }
    if (!this.is(T.Function)) throw invalid;
    const name = lowered(unescapeCss(this.raw(this.at++).slice(0, -1)));
    const inner = this.inner();
    if (!double) return this.functional(before, name, inner);
    if (trimmed(inner) === '') throw invalid;
    if (!functionalPseudoElements.has(name)) this.onlyElsewhere();
    this.argument(name, inner);
    return this.pseudoElement(before, `::${name}(${trimmed(inner)})`);
  }

  private pseudoElement(before: string | undefined, text: string): string {
    if (before === undefined) return text;
    if (!takesElementAfter(before, text)) this.onlyElsewhere();
    return before + text;
  }

  /** After a pseudo-element it says something of what no markup shows: it holds in some state. */
  private pseudoClass(before: string | undefined, name: string, argument: string | undefined): SimpleSelector {
    if (before === undefined) return { kind: 'pseudo-class', name, argument };
    if (!takesClassAfter(before, name)) this.onlyElsewhere();
    return { kind: 'pseudo-class', name: `${before}:${name}`, argument };
  }

  private argument(name: string, inner: string): void {
    if (!isArgument(name, inner)) this.onlyElsewhere();
    if (takesCompound.test(name) && !this.isCompound(name, inner)) this.onlyElsewhere();
  }

  private isCompound(name: string, inner: string): boolean {
    const reader = new Reader(tokensOf(inner), this.context);
    reader.depth = this.depth + 1;
    const list = reader.depth > maxDepth ? undefined : read(reader);
    if (!list?.every((one) => one.combinators.length === 0 && hasNoPseudoElement(one))) return false;
    return list.length === 1 || name === 'cue';
  }

  /** The text up to the matching closing parenthesis, which is passed. */
  private inner(): string {
    const from = this.at < this.t.count ? this.t.start[this.at]! : this.t.text.length;
    let open = 1;
    for (; this.at < this.t.count; this.at++) {
      const type = this.t.type[this.at]!;
      if (type === T.Function || type === T.LeftParenthesis) open++;
      if (type === T.RightParenthesis && --open === 0) return this.t.text.slice(from, this.t.start[this.at++]);
    }
    return this.t.text.slice(from);
  }

  private functional(before: string | undefined, name: string, inner: string): SimpleSelector {
    switch (name) {
      case 'is':
      case 'where':
        if (before !== undefined && !takesListAfter(before)) this.onlyElsewhere();
        return { kind: 'matches', name, list: this.forgiving(inner, before) };
      case '-webkit-any':
        return { kind: 'matches', name: 'is', list: this.any(inner, before) };
      case 'not':
        if (before !== undefined && !takesListAfter(before)) this.onlyElsewhere();
        return { kind: 'matches', name: 'not', list: this.sub(inner, before).list(false).map(withoutPseudoElement) };
      case 'has':
        if (before !== undefined) this.onlyElsewhere();
        return { kind: 'has', list: this.relativeList(inner) };
      case 'nth-child':
      case 'nth-last-child':
      case 'nth-of-type':
      case 'nth-last-of-type':
        if (before !== undefined) this.onlyElsewhere();
        return this.nth(name, inner);
      default:
        if (trimmed(inner) === '') throw invalid;
        if (!textArgumentClasses.has(name)) this.onlyElsewhere();
        this.argument(name, inner);
        return this.pseudoClass(before, name, trimmed(inner));
    }
  }

  /** The older form of `:is()`: no list that forgives, no combinators. */
  private any(inner: string, before: string | undefined): ComplexSelector[] {
    const list = this.forgiving(inner, before);
    const isOld =
      list.length === splitCommas(inner).length && list.every(({ combinators }) => combinators.length === 0);
    if (before !== undefined || !isOld) this.onlyElsewhere();
    return list;
  }

  private sub(text: string, after?: string): Reader {
    const reader = new Reader(tokensOf(text), this.context, this.notes);
    reader.after = after;
    reader.depth = this.depth + 1;
    reader.insideHas = this.insideHas;
    if (reader.depth > maxDepth) throw invalid;
    return reader;
  }

  private forgiving(inner: string, after: string | undefined): ComplexSelector[] {
    const out: ComplexSelector[] = [];
    for (const part of splitCommas(inner)) {
      try {
        out.push(...this.sub(part, after).list(false).map(withoutPseudoElement));
      } catch (error) {
        if (error !== invalid) throw error;
      }
    }
    return out;
  }

  private relativeList(inner: string): RelativeSelector[] {
    if (this.insideHas) throw invalid;
    return splitCommas(inner).map((part) => {
      const reader = this.sub(part);
      reader.insideHas = true;
      reader.space();
      const combinator = reader.combinatorSign() ?? ' ';
      const [selector] = reader.list(false);
      return { combinator, selector: withoutPseudoElement(selector!) };
    });
  }

  private nth(name: string, inner: string): SimpleSelector {
    const formula = parseAnPlusB(inner);
    const ofType = name.endsWith('of-type');
    if (!formula || (formula.of !== undefined && ofType)) throw invalid;
    const { step, offset } = formula;
    const of = formula.of === undefined ? undefined : this.sub(formula.of).list(false).filter(hasNoPseudoElement);
    return { kind: 'nth', last: name.includes('last'), ofType, step, offset, of };
  }

  private comments(): void {
    while (this.is(T.Comment)) this.at++;
  }

  private space(): boolean {
    let spaced = false;
    for (; this.at < this.t.count; this.at++) {
      if (this.t.type[this.at] === T.WhiteSpace) spaced = true;
      else if (this.t.type[this.at] !== T.Comment) break;
    }
    return spaced;
  }

  private is(type: number): boolean {
    return this.t.type[this.at] === type;
  }

  private take(type: number): boolean {
    if (this.t.type[this.at] !== type) return false;
    this.at++;
    return true;
  }

  private isDelim(i: number, char: string): boolean {
    return this.t.type[i] === T.Delim && this.raw(i) === char;
  }

  private raw(i: number): string {
    return this.t.text.slice(this.t.start[i], this.t.end[i]);
  }

  private ident(): string {
    return unescapeCss(this.raw(this.at++));
  }
}

const caselessAttributes = new Set(
  (
    'accept accept-charset align alink axis bgcolor charset checked clear codetype color compact declare defer dir direction ' +
    'disabled enctype face frame hreflang http-equiv lang language link media method multiple nohref noresize noshade nowrap ' +
    'readonly rel rev rules scope scrolling selected shape target text type valign valuetype vlink'
  ).split(' '),
);

const scopeClass: SimpleSelector = { kind: 'pseudo-class', name: 'scope', argument: 'nesting' };

const nesting = (list: SelectorList): SimpleSelector => ({ kind: 'matches', name: 'nesting', list });

function join(parent: SimpleSelector, combinator: Combinator, inner: ComplexSelector): ComplexSelector {
  const compounds = [{ simples: [parent], pseudoElement: undefined }, ...inner.compounds];
  const combinators = [combinator, ...inner.combinators];
  const text = combinator === ' ' ? `& ${inner.text}` : `& ${combinator} ${inner.text}`;
  return { compounds, combinators, specificity: specificityOf(compounds), text };
}

const hasNoPseudoElement = ({ compounds }: ComplexSelector): boolean =>
  compounds.every((c) => c.pseudoElement === undefined);

function withoutPseudoElement(selector: ComplexSelector): ComplexSelector {
  if (!hasNoPseudoElement(selector)) throw invalid;
  return selector;
}

/** Splits at commas outside parentheses, brackets and strings. */
function splitCommas(text: string): string[] {
  const tokens = tokensOf(text);
  const out: string[] = [];
  let open = 0;
  let from = 0;
  for (let i = 0; i < tokens.count; i++) {
    const type = tokens.type[i]!;
    if (type === T.Function || type === T.LeftParenthesis || type === T.LeftSquareBracket) open++;
    if (type === T.RightParenthesis || type === T.RightSquareBracket) open--;
    if (type === T.Comma && open === 0) {
      out.push(text.slice(from, tokens.start[i]));
      from = tokens.end[i]!;
    }
  }
  out.push(text.slice(from));
  return out;
}
