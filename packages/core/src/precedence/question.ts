import type { Contender } from '../cascade/contenders.ts';
import type { Environment } from '../cascade/environment.ts';
import type { OwnOutcome } from '../cascade/ownOutcome.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import { printSpecificity } from '../selectors/selector.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { longhandsOf, propertyKind, propertyName } from '../values/longhands.ts';
import type { KeptOutcomes } from './keptOutcomes.ts';
import type { Kind } from './kindTable.ts';
import type { KeptOutcome, OutcomesIn } from './outcomesIn.ts';
import { winningSentence, type Sentence } from './reasons.ts';

export interface SiteQuestion {
  readonly selector: string;
  readonly property: string;
  readonly environment: Environment;
  /** All pages when absent. */
  readonly pages?: readonly string[];
}

/** A rule, an attribute or a default that decides the value of some of the elements. */
export interface Decider {
  readonly kind: 'linked' | 'imported' | 'embedded' | 'attribute' | 'presentational' | 'browser' | 'initial';
  /** The sheet's path; empty for what stands in pages. */
  readonly path: string;
  /** The rule's selectors as written; the attribute's name for a presentational one. */
  readonly selector: string;
  readonly specificity: string | undefined;
  readonly important: boolean;
  /** The declaration: as written. */
  readonly property: string;
  readonly value: string;
  /** The name of the element the value is inherited from. */
  readonly inheritedFrom: string | undefined;
  readonly sentence: Sentence;
  /** A local declaration that says what the shared one below it says. */
  readonly copies: boolean;
  /** The shared declaration it beats, where it stands in a page. */
  readonly over: { readonly path: string; readonly selector: string; readonly value: string } | undefined;
  readonly pages: readonly string[];
  readonly elements: number;
  /** The first element, by its number in the page. */
  readonly first: { readonly page: string; readonly index: number };
}

export interface QuestionValue {
  readonly value: string;
  readonly pages: readonly string[];
  readonly elements: number;
  readonly deciders: readonly Decider[];
}

export interface QuestionAnswer {
  readonly pages: number;
  readonly elements: number;
  /** On most pages first. */
  readonly values: readonly QuestionValue[];
  /** Pages with no such element. */
  readonly without: number;
}

export type QuestionProblem =
  | { readonly kind: 'bad-selector'; readonly selector: string }
  | { readonly kind: 'unknown-property'; readonly property: string };

/** Elements whose value comes from the same declaration in the same way. */
interface Growing {
  readonly outcome: KeptOutcome;
  readonly first: { readonly page: string; readonly index: number };
  readonly longhand: string;
  readonly value: string;
  readonly pages: string[];
  elements: number;
}

/** What decides a property of all elements a selector reaches, over all pages: values, and who decides each. */
export function askSite(kept: KeptOutcomes, question: SiteQuestion): Result<QuestionAnswer, QuestionProblem> {
  const property = propertyName(question.property.trim());
  const kind = propertyKind(property);
  if (property === '' || kind === 'unknown' || kind === 'all') return fail({ kind: 'unknown-property', property: question.property }); // prettier-ignore
  const { selector, pseudoElement } = apart(question.selector);
  const reaching = kept.reach(selector);
  if (!reaching) return fail({ kind: 'bad-selector', selector: question.selector });
  const outcomes = kept.in(question.environment);
  const answers = new Answers(kept, outcomes, property, kind === 'custom' ? [property] : longhandsOf(property), pseudoElement); // prettier-ignore
  const wanted = question.pages && new Set(question.pages);
  let pages = 0;
  let without = 0;
  for (const page of kept.pages) {
    if (wanted && !wanted.has(page.path)) continue;
    const before = answers.elements;
    const { cells, path } = page;
    if (reaching.by === 'element') for (const i of reaching.elements.get(path) ?? []) answers.add(cells[i]!, path, i);
    else for (let i = 0; i < cells.length; i++) if (reaching.cells[cells[i]!] === 1) answers.add(cells[i]!, path, i);
    if (answers.elements > before) pages++;
    else without++;
  }
  return succeed({
    pages,
    elements: answers.elements,
    without,
    values: valuesOf(answers.groups, outcomes, pseudoElement),
  });
}

/** Counts elements by what decides them; cells of the same row of kinds are looked at once. */
class Answers {
  readonly groups: Growing[] = [];
  elements = 0;
  private readonly groupOfCell: (Growing | undefined)[];
  private readonly byKey = new Map<string, Growing>();
  private readonly kept: KeptOutcomes;
  private readonly outcomes: OutcomesIn;
  private readonly property: string;
  private readonly longhands: readonly string[];
  private readonly pseudoElement: string;

  constructor(
    kept: KeptOutcomes,
    outcomes: OutcomesIn,
    property: string,
    longhands: readonly string[],
    pseudoElement: string,
  ) {
    this.kept = kept;
    this.outcomes = outcomes;
    this.property = property;
    this.longhands = longhands;
    this.pseudoElement = pseudoElement;
    this.groupOfCell = new Array<Growing | undefined>(kept.cellCount);
  }

  add(cell: number, page: string, index: number): void {
    const group = (this.groupOfCell[cell] ??= this.groupFor(this.kept.chainOfCell(cell), page, index));
    this.elements++;
    group.elements++;
    if (group.pages.at(-1) !== page) group.pages.push(page);
  }

  private groupFor(chain: number, page: string, index: number): Growing {
    const all = this.longhands.map((name) => ({ name, outcome: this.outcomes.outcomeOf(chain, name, this.pseudoElement) })); // prettier-ignore
    const key = all.length === 1 ? ownKey(all[0]!.outcome) : all.map(({ outcome }) => ownKey(outcome)).join('|');
    let group = this.byKey.get(key);
    if (!group) {
      // of a shorthand the longhand that somebody says something of stands for all
      const main = all.find(({ outcome }) => outcome.own.kind === 'declared') ?? all.find(({ outcome }) => outcome.own.kind === 'default') ?? all[0]!; // prettier-ignore
      const value = valueOf(all, this.property);
      group = { outcome: main.outcome, first: { page, index }, longhand: main.name, value, pages: [], elements: 0 };
      this.byKey.set(key, group);
      this.groups.push(group);
    }
    return group;
  }
}

/** A pseudo-element at the end is asked for on the elements the rest reaches. */
function apart(text: string): { readonly selector: string; readonly pseudoElement: string } {
  const last = parseSelectorList(text)?.[0]?.compounds.at(-1)?.pseudoElement;
  const found = last === undefined ? undefined : /::?[a-z-]+(?:\([^()]*\))?\s*$/i.exec(text);
  if (!found || last === undefined) return { selector: text, pseudoElement: '' };
  const rest = text.slice(0, found.index).trim();
  return { selector: rest === '' ? '*' : rest, pseudoElement: last };
}

const keys = new WeakMap<object, string>();

function ownKey({ own, up }: KeptOutcome): string {
  const inherited = up === 0 ? '' : '^';
  if (own.kind === 'initial') return `${inherited}initial`;
  if (own.kind === 'default') return `${inherited}${own.selector} ${own.declaration.comparable}`;
  const { contender } = own;
  let key = keys.get(contender);
  if (key === undefined) {
    const { origin, source, rule, compiled, selector } = contender;
    const at = origin === 'rule' ? `${source!.kind} ${source!.kind === 'embedded' ? '' : source!.path} ${rule!.rule.selector}>${selector!}` : origin; // prettier-ignore
    key = `${at} ${compiled.declaration.property}:${compiled.comparable}${compiled.declaration.important ? '!' : ''}`;
    keys.set(contender, key);
  }
  return inherited + key;
}

/** One value, or what the longhands get where they differ. */
function valueOf(all: readonly { readonly name: string; readonly outcome: KeptOutcome }[], property: string): string {
  const said = all.map(({ name, outcome }) => ({ name, value: written(outcome.own, name, property) }));
  const values = new Set(said.map((one) => one.value));
  if (values.size === 1) return said[0]!.value;
  const declared = all.filter(({ outcome }) => outcome.own.kind !== 'initial').map(({ name }) => name);
  const telling = new Set(said.filter(({ name }) => declared.includes(name)).map((one) => one.value));
  if (telling.size === 1) return [...telling][0]!;
  if (telling.size === 0) return 'initial';
  const box = /^(margin|padding)$/.test(property) || /^border-(width|style|color)$/.test(property);
  if (box) return said.map((one) => one.value).join(' ');
  return said
    .filter(({ name }) => declared.includes(name))
    .map(({ name, value }) => `${name}: ${value}`)
    .join('; ');
}

function written(own: OwnOutcome, longhand: string, asked: string): string {
  if (own.kind === 'initial') return own.value;
  const { declaration, longhands, comparable, values } =
    own.kind === 'default' ? own.declaration : own.contender.compiled;
  if (declaration.property === longhand || declaration.property === asked) return declaration.value;
  return values?.[longhands.indexOf(longhand)] ?? comparable;
}

function valuesOf(groups: readonly Growing[], outcomes: OutcomesIn, pseudoElement: string): readonly QuestionValue[] {
  const byValue = new Map<string, Growing[]>();
  for (const group of groups) {
    const { own } = group.outcome;
    const meaning = own.kind === 'initial' ? own.value : own.kind === 'default' ? own.declaration.comparable : own.contender.compiled.comparable; // prettier-ignore
    const key = group.value === written(own, group.longhand, '') ? meaning.toLowerCase() : group.value;
    const list = byValue.get(key);
    if (list) list.push(group);
    else byValue.set(key, [group]);
  }
  const values = [...byValue.values()].map((list): QuestionValue => {
    list.sort((a, b) => b.pages.length - a.pages.length);
    return {
      value: list[0]!.value,
      pages: union(list),
      elements: list.reduce((sum, one) => sum + one.elements, 0),
      deciders: list.map((one) => deciderOf(one, outcomes, pseudoElement)),
    };
  });
  return values.sort((a, b) => b.pages.length - a.pages.length || b.elements - a.elements);
}

function union(groups: readonly Growing[]): readonly string[] {
  const all = new Set(groups.flatMap((group) => group.pages));
  return [...all];
}

function deciderOf(group: Growing, outcomes: OutcomesIn, pseudoElement: string): Decider {
  const { outcome, first, longhand, value, pages, elements } = group;
  const inherited = outcome.up > 0;
  const from = inherited ? outcome.kind.tag : undefined;
  const common = { value, inheritedFrom: from, pages, elements, first, copies: false, over: undefined }; // prettier-ignore
  const { own } = outcome;
  if (own.kind === 'initial') {
    const sentence = { lead: 'The initial value counts.', rest: 'Nothing says it, and nothing is inherited.', kind: 'alone' } as const; // prettier-ignore
    return { ...common, kind: 'initial', path: '', selector: '', specificity: undefined, important: false, property: longhand, sentence }; // prettier-ignore
  }
  if (own.kind === 'default') {
    const { property, important } = own.declaration.declaration;
    const sentence = { lead: 'The browser’s default counts.', rest: 'No source of these pages says it.', kind: 'default' } as const; // prettier-ignore
    return { ...common, kind: 'browser', path: '', selector: own.selector, specificity: undefined, important, property, sentence }; // prettier-ignore
  }
  const winner = own.contender;
  const below = rivalsOf(winner, outcome.kind, outcomes, longhand, inherited ? '' : pseudoElement);
  const { declaration, comparable } = winner.compiled;
  const shared = below.find((one) => one.origin === 'rule' && one.source!.kind !== 'embedded');
  const isLocal = winner.origin === 'attribute' || winner.source?.kind === 'embedded';
  const copies = isLocal && below[0] !== undefined && below[0] === shared && shared.compiled.comparable === comparable;
  const hasDefault = (outcome.kind.defaults.get(pseudoElement) ?? []).some((rule) => rule.declarations.some((d) => d.longhands.includes(longhand))); // prettier-ignore
  return {
    ...common,
    kind: winner.origin === 'hint' ? 'presentational' : winner.origin === 'attribute' ? 'attribute' : winner.source!.kind, // prettier-ignore
    path: winner.source && winner.source.kind !== 'embedded' ? winner.source.path : '',
    selector: winner.rule?.rule.selector ?? winner.hint?.attribute ?? '',
    specificity: winner.rule ? printSpecificity(winner.specificity) : undefined,
    important: declaration.important,
    property: declaration.property,
    copies,
    over:
      isLocal && shared
        ? { path: shared.source!.path, selector: shared.rule!.rule.selector, value: shared.compiled.declaration.value }
        : undefined,
    sentence: copies
      ? { ...winningSentence(winner, below[0], hasDefault), rest: 'It says what the shared rule below it says: a copy that decides because it is stronger or comes later.' } // prettier-ignore
      : inherited
        ? { lead: `Inherited from \`${from!}\`.`, rest: 'No rule names the element itself.', kind: 'inherited' }
        : winningSentence(winner, below[0], hasDefault),
  };
}

/** The declarations it beats, strongest first. */
function rivalsOf(
  winner: Contender,
  kind: Kind,
  outcomes: OutcomesIn,
  longhand: string,
  pseudoElement: string,
): readonly Contender[] {
  const all = outcomes.contendersOf(kind, pseudoElement);
  return all.slice(all.indexOf(winner) + 1).filter((one) => one.compiled.longhands.includes(longhand));
}

export function describeQuestionProblem(problem: QuestionProblem): string {
  switch (problem.kind) {
    case 'bad-selector':
      return `Browsers refuse the selector "${problem.selector}". Write one as in a sheet: h1, nav a, .notice p.`;
    case 'unknown-property':
      return `There is no property "${problem.property}". Name one such as color, margin or font-size, or a custom property such as --accent.`;
  }
}
