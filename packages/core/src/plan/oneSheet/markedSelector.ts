import { endOfCompound } from '../../selectors/endOfCompound.ts';
import { selectorsOfAnyBrowser } from '../../selectors/parseSelector.ts';
import {
  compareSpecificity,
  type ComplexSelector,
  type CompoundSelector,
  type SelectorList,
  type Specificity,
} from '../../selectors/selector.ts';
import type { PageReading, ReadTag } from '../../survey/pageReading.ts';
import type { PlannedRule } from '../ruleTable.ts';

/**
 * Which pages a rule is for, as one condition on their `body` or root element: `.news`, `:not(.plain)`, `:is(.a, .b)`; or as the name of
 * elements that enclose all it means.
 */
export interface PageCondition {
  readonly on: 'body' | 'root' | 'around';
  readonly test: string;
}

/** The names the `body` and root elements of the pages have. */
export interface TopNames {
  readonly body: readonly ReadTag[];
  readonly root: readonly ReadTag[];
}

type Meets = 'body' | 'root';

export function topNames(readings: readonly (PageReading | undefined)[]): TopNames {
  const of = (on: Meets): readonly ReadTag[] => readings.flatMap((reading) => reading?.[on] ?? []);
  return { body: of('body'), root: of('root') };
}

/** Whether the rule can be written with another selector at all. */
export const canBeMarked = (rule: PlannedRule, names: TopNames): boolean =>
  rule.kind === 'rule' &&
  rule.markable &&
  markedSelector(rule.label, { on: 'root', test: '.x' }, names, true) !== undefined;

/** What another selector adds to the specificity of each of a list; undefined where that is not the same for all. */
export function addedSpecificity(list: string, marked: string): Specificity | undefined {
  const before = selectorsOfAnyBrowser(list);
  const after = selectorsOfAnyBrowser(marked);
  if (!before || !after || before.length !== after.length) return undefined;
  const added = after.map(({ specificity: [a, b, c] }, i): Specificity => {
    const [x, y, z] = before[i]!.specificity;
    return [a - x, b - y, c - z];
  });
  return added.every((one) => compareSpecificity(one, added[0]!) === 0) ? added[0] : undefined;
}

/** Whether some part of a selector may mean the root element: the condition has to stand there then. */
export function needsRoot(list: string, names: TopNames): boolean {
  const selectors = selectorsOfAnyBrowser(list);
  return selectors === undefined || selectors.some(({ compounds }) => mayBe(compounds[0]!, 'root', names.root));
}

/**
 * A selector list that asks for the same on the pages that meet the condition only: `.news .notice`, `body.news`, with `weightless`
 * `:where(.news) .notice`, which is as specific as before. Undefined where the selector cannot be read.
 *
 * Selectors 4, "The Specificity-adjustment Pseudo-class: :where()".
 */
export function markedSelector(
  list: string,
  condition: PageCondition,
  names: TopNames,
  weightless: boolean,
): string | undefined {
  return selectorsOfAnyBrowser(list)
    ?.map((selector) => marked(selector, condition, names, weightless))
    .join(', ');
}

function marked(selector: ComplexSelector, { on, test }: PageCondition, names: TopNames, weightless: boolean): string {
  if (on === 'around') return `${weightless ? `:where(${test})` : test} ${selector.text}`;
  const first = selector.compounds[0]!;
  const tag = on === 'body' ? 'body' : 'html';
  const type = first.simples.find((simple) => simple.kind === 'type');
  const mark =
    weightless && !test.startsWith(':is(') ? `:where(${test})` : weightless ? `:where${test.slice(3)}` : test;
  if (type?.lower === tag || first.simples.some((s) => on === 'root' && s.kind === 'pseudo-class' && s.name === 'root'))
    return insert(selector.text, first, mark);
  const above = test.startsWith(':not') ? `${tag}${test}` : test;
  if (!mayBe(first, on, names[on])) {
    const ancestor = !weightless ? above : test.startsWith(':is(') ? mark : `:where(${above})`;
    return `${ancestor} ${selector.text}`;
  }
  // the element that has the mark, or one below it
  const both = test.startsWith(':is(') ? test : above;
  return insert(selector.text, first, `${weightless ? ':where' : ':is'}(${both}, ${both} *)`);
}

/** Behind the simple selectors of the first compound, ahead of its pseudo-element. */
function insert(text: string, first: CompoundSelector, what: string): string {
  const end = endOfCompound(text);
  const compound = text.slice(0, end);
  const at = first.pseudoElement === undefined ? end : pseudoElementAt(compound);
  return `${text.slice(0, at)}${what}${text.slice(at)}`;
}

/** Where `::before`, or `:before` as it was written of old, begins. */
function pseudoElementAt(compound: string): number {
  const found = /::[a-z-]|:(?:before|after|first-line|first-letter)\b/i.exec(compound);
  return found ? found.index : compound.length;
}

/** Whether a compound may mean the page's `body` or root. What is neither type, class nor ID is taken to. */
function mayBe({ simples }: CompoundSelector, which: Meets, tags: readonly ReadTag[]): boolean {
  const tag = which === 'body' ? 'body' : 'html';
  const classes = new Set(tags.flatMap((one) => one.classes.map((name) => name.toLowerCase())));
  const ids = new Set(tags.flatMap(({ id }) => (id === undefined ? [] : [id.toLowerCase()])));
  return simples.every((simple) => {
    if (simple.kind === 'type') return simple.lower === tag;
    if (simple.kind === 'class') return classes.has(simple.name.toLowerCase());
    if (simple.kind === 'id') return ids.has(simple.name.toLowerCase());
    if (simple.kind === 'matches' && (simple.name === 'is' || simple.name === 'where'))
      return mayBeAny(simple.list, which, tags);
    if (simple.kind === 'pseudo-class') return which === 'root' || simple.name !== 'root';
    return true;
  });
}

const mayBeAny = (list: SelectorList, which: Meets, tags: readonly ReadTag[]): boolean =>
  list.some(({ compounds }) => mayBe(compounds.at(-1)!, which, tags));
