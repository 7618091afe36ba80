import type { CompiledDeclaration } from '../../cascade/compiledRule.ts';
import { selectorsOfAnyBrowser } from '../../selectors/parseSelector.ts';
import { compareSpecificity, type ComplexSelector, type Specificity } from '../../selectors/selector.ts';
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

/** What a selector means elements by: its last compound. */
export interface Subject {
  /** Specificity and pseudo-element: only between equal ones does order decide. */
  readonly rank: string;
  readonly specificity: Specificity;
  readonly pseudoElement: string;
  readonly tag: string | undefined;
  readonly id: string | undefined;
  /** In lower case. */
  readonly classes: readonly string[];
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
  const subjects = (selectorsOfAnyBrowser(rule.label) ?? []).map(subjectOf);
  return { definition: undefined, subjects, values, anything: rule.nests === true || values.has('all') };
}

function subjectOf(selector: ComplexSelector): Subject {
  const last = selector.compounds.at(-1)!;
  let tag: string | undefined;
  let id: string | undefined;
  const classes: string[] = [];
  for (const simple of last.simples) {
    if (simple.kind === 'class') classes.push(simple.name.toLowerCase());
    if (simple.kind === 'type') tag = simple.lower;
    if (simple.kind === 'id') id = simple.name.toLowerCase();
  }
  const { specificity } = selector;
  const pseudoElement = last.pseudoElement ?? '';
  return { rank: `${specificity.join()}${pseudoElement}`, specificity, pseudoElement, tag, id, classes };
}

/** False only when the order of the two can decide nothing on any page. */
export function mayCompete(a: Traits, b: Traits): boolean {
  if (a.definition !== undefined || b.definition !== undefined) return a.definition === b.definition;
  if (a.anything || b.anything) return true;
  return a.subjects.some((one) => b.subjects.some((other) => mayMeet(one, other))) && disagree(a, b);
}

/**
 * Whether one of two rules may win where it did not, were their specificities raised by so much. `aFirst`: the first stands before
 * the second. `meet`: what more is known of whether an element may be both.
 */
export function mayFlip(
  a: Traits,
  b: Traits,
  raiseA: Specificity,
  raiseB: Specificity,
  aFirst: boolean,
  meet: (one: Subject, other: Subject) => boolean = mayBeOne,
): boolean {
  if (a.definition !== undefined || b.definition !== undefined) return false;
  const turns = (one: Subject, other: Subject): boolean => {
    const by = compareSpecificity(one.specificity, other.specificity);
    const now = compareSpecificity(raised(one.specificity, raiseA), raised(other.specificity, raiseB));
    return (by > 0 || (by === 0 && !aFirst)) !== (now > 0 || (now === 0 && !aFirst));
  };
  if (!a.anything && !b.anything && !disagree(a, b)) return false;
  return a.subjects.some((one) =>
    b.subjects.some(
      (other) =>
        one.pseudoElement === other.pseudoElement && mayBeOne(one, other) && turns(one, other) && meet(one, other),
    ),
  );
}

const raised = (a: Specificity, by: Specificity): Specificity => [a[0] + by[0], a[1] + by[1], a[2] + by[2]];

/** They say different things of something. */
function disagree(a: Traits, b: Traits): boolean {
  const [few, many] = a.values.size < b.values.size ? [a, b] : [b, a];
  for (const [slot, value] of few.values) {
    const other = many.values.get(slot);
    if (other !== undefined && other !== value) return true;
  }
  return false;
}

/** Equal in rank, and some element may be both. */
const mayMeet = (a: Subject, b: Subject): boolean => a.rank === b.rank && mayBeOne(a, b);

const mayBeOne = (a: Subject, b: Subject): boolean =>
  (a.tag === undefined || b.tag === undefined || a.tag === b.tag) &&
  (a.id === undefined || b.id === undefined || a.id === b.id);
