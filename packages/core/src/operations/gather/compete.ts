import type { CompiledDeclaration } from '../../cascade/compiledRule.ts';
import { parseSelectorList } from '../../selectors/parseSelector.ts';
import type { ComplexSelector } from '../../selectors/selector.ts';
import { physicalCounterparts } from '../../values/longhands.ts';

/** What ordering needs to know of a rule: may two of them decide the same longhand of the same element by their order? */
export interface Orderable {
  readonly key: string;
  readonly kind: 'rule' | 'definition';
  readonly label: string;
  readonly declarations: readonly CompiledDeclaration[];
  /** Holds nested rules: what these select is not looked into. */
  readonly nests?: boolean;
}

interface Subject {
  /** Specificity and pseudo-element: only between equal ones does order decide. */
  readonly rank: string;
  readonly tag: string | undefined;
  readonly id: string | undefined;
}

/** A rule as `mayCompete` reads it. */
export interface Traits {
  readonly definition: string | undefined;
  readonly subjects: readonly Subject[];
  readonly values: ReadonlyMap<string, string>;
  /** Sets or may set anything, on any element. */
  readonly anything: boolean;
}

export function traitsOf(rule: Orderable): Traits {
  if (rule.kind === 'definition') return { definition: rule.label, subjects: [], values: new Map(), anything: false };
  const values = new Map<string, string>();
  for (const compiled of rule.declarations)
    for (const longhand of compiled.longhands)
      for (const slot of [longhand, ...physicalCounterparts(longhand)])
        values.set(
          slot,
          `${values.get(slot) ?? ''};${compiled.declaration.property}:${compiled.comparable}${compiled.declaration.important ? '!' : ''}`,
        );
  const subjects = (parseSelectorList(rule.label) ?? []).map(subjectOf);
  return { definition: undefined, subjects, values, anything: rule.nests === true || values.has('all') };
}

function subjectOf(selector: ComplexSelector): Subject {
  const last = selector.compounds.at(-1)!;
  let tag: string | undefined;
  let id: string | undefined;
  for (const simple of last.simples) {
    if (simple.kind === 'type') tag = simple.lower;
    if (simple.kind === 'id') id = simple.name.toLowerCase();
  }
  return { rank: `${selector.specificity.join()}${last.pseudoElement ?? ''}`, tag, id };
}

/** False only when the order of the two can decide nothing on any page. */
export function mayCompete(a: Traits, b: Traits): boolean {
  if (a.definition !== undefined || b.definition !== undefined) return a.definition === b.definition;
  if (a.anything || b.anything) return true;
  if (!a.subjects.some((one) => b.subjects.some((other) => mayMeet(one, other)))) return false;
  const [few, many] = a.values.size < b.values.size ? [a, b] : [b, a];
  for (const [slot, value] of few.values) {
    const other = many.values.get(slot);
    if (other !== undefined && other !== value) return true;
  }
  return false;
}

/** Equal in rank, and some element may be both. */
const mayMeet = (a: Subject, b: Subject): boolean =>
  a.rank === b.rank &&
  (a.tag === undefined || b.tag === undefined || a.tag === b.tag) &&
  (a.id === undefined || b.id === undefined || a.id === b.id);
