import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import type { Environment } from '../cascade/environment.ts';
import type { OwnOutcome } from '../cascade/ownOutcome.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import { parseSelectorList } from '../selectors/parseSelector.ts';
import { longhandsOf, propertyKind, propertyName } from '../values/longhands.ts';
import { deciderOf, type Decider, type Deciding } from './deciders.ts';
import type { KeptOutcomes } from './keptOutcomes.ts';
import type { KeptOutcome, OutcomesIn } from './outcomesIn.ts';

export interface SiteQuestion {
  readonly selector: string;
  readonly property: string;
  readonly environment: Environment;
  /** All pages when absent. */
  readonly pages?: readonly string[];
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

/** What decides a property of all elements a selector reaches, over all pages: values, and who decides each. */
export function askSite(kept: KeptOutcomes, question: SiteQuestion): Result<QuestionAnswer, QuestionProblem> {
  const property = propertyName(trimmed(question.property));
  const kind = propertyKind(property);
  if (property === '' || kind === 'unknown' || kind === 'all')
    return fail({ kind: 'unknown-property', property: question.property });
  const { selector, pseudoElement } = apart(question.selector);
  const reaching = kept.reach(selector);
  if (!reaching) return fail({ kind: 'bad-selector', selector: question.selector });
  const outcomes = kept.in(question.environment);
  const answers = new Answers(
    kept,
    outcomes,
    property,
    kind === 'custom' ? [property] : longhandsOf(property),
    pseudoElement,
  );
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
  readonly groups: Deciding[] = [];
  elements = 0;
  private readonly groupOfCell: (Deciding | undefined)[];
  private readonly byKey = new Map<string, Deciding>();
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
    this.groupOfCell = new Array<Deciding | undefined>(kept.cellCount);
  }

  add(cell: number, page: string, index: number): void {
    const group = (this.groupOfCell[cell] ??= this.groupFor(this.kept.chainOfCell(cell), page, index));
    this.elements++;
    group.elements++;
    if (group.pages.at(-1) !== page) group.pages.push(page);
  }

  private groupFor(chain: number, page: string, index: number): Deciding {
    const all = this.longhands.map((name) => ({
      name,
      outcome: this.outcomes.outcomeOf(chain, name, this.pseudoElement),
    }));
    const key = all.length === 1 ? ownKey(all[0]!.outcome) : all.map(({ outcome }) => ownKey(outcome)).join('|');
    let group = this.byKey.get(key);
    if (!group) {
      // of a shorthand the longhand that somebody says something of stands for all
      const main =
        all.find(({ outcome }) => outcome.own.kind === 'declared') ??
        all.find(({ outcome }) => outcome.own.kind === 'default') ??
        all[0]!;
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
  const found = last === undefined ? undefined : /::?[a-z-]+(?:\([^()]*\))?[\t\n\f\r ]*$/i.exec(text);
  if (!found || last === undefined) return { selector: text, pseudoElement: '' };
  const rest = trimmed(text.slice(0, found.index));
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
    const at =
      origin === 'rule'
        ? `${source!.kind} ${source!.kind === 'embedded' ? '' : source!.path} ${rule!.rule.selector}>${selector!}`
        : origin;
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

function valuesOf(groups: readonly Deciding[], outcomes: OutcomesIn, pseudoElement: string): readonly QuestionValue[] {
  const byValue = new Map<string, Deciding[]>();
  for (const group of groups) {
    const { own } = group.outcome;
    const meaning =
      own.kind === 'initial'
        ? own.value
        : own.kind === 'default'
          ? own.declaration.comparable
          : own.contender.compiled.comparable;
    const key = group.value === written(own, group.longhand, '') ? lowered(meaning) : group.value;
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

function union(groups: readonly Deciding[]): readonly string[] {
  const all = new Set(groups.flatMap((group) => group.pages));
  return [...all];
}

export function describeQuestionProblem(problem: QuestionProblem): string {
  switch (problem.kind) {
    case 'bad-selector':
      return `Browsers refuse the selector "${problem.selector}". Write one as in a sheet: h1, nav a, .notice p.`;
    case 'unknown-property':
      return `There is no property "${problem.property}". Name one such as color, margin or font-size, or a custom property such as --accent.`;
  }
}
