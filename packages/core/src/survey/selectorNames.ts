import { lowered } from '../source/asciiCase.ts';
import { selectorsOfAnyBrowser } from '../selectors/parseSelector.ts';
import type { ComplexSelector, SelectorList, SimpleSelector } from '../selectors/selector.ts';
import type { Rule } from '../sheet/sheet.ts';

/** A class or ID as selectors spell it: `.notice`, `#wrap`. */
export type MarkedName = string;

/** The classes and IDs a selector names, those inside `:is()`, `:not()` and the like included. */
export function namesIn(selector: ComplexSelector, from = 0, to = selector.compounds.length): readonly MarkedName[] {
  const out: string[] = [];
  for (const compound of selector.compounds.slice(from, to))
    for (const simple of compound.simples) {
      if (simple.kind === 'class') out.push(`.${simple.name}`);
      else if (simple.kind === 'id') out.push(`#${simple.name}`);
      else if (simple.kind === 'matches') for (const inner of simple.list) out.push(...namesIn(inner));
      else if (simple.kind === 'has') for (const inner of simple.list) out.push(...namesIn(inner.selector));
      else if (simple.kind === 'nth' && simple.of) for (const inner of simple.of) out.push(...namesIn(inner));
    }
  return out;
}

const memo = new Map<string, SelectorList | undefined>();

/** A rule's selectors, the same text parsed once; nested ones may begin with a combinator. */
export function selectorsOf(text: string): SelectorList | undefined {
  let known = memo.get(text);
  if (known === undefined) {
    if (memo.size > 20_000) memo.clear();
    memo.set(text, (known = selectorsOfAnyBrowser(text) ?? selectorsOfAnyBrowser(text, { scoped: true })));
  }
  return known;
}

/** Each selector of each style rule, nested ones included. */
export function eachSelector(rules: readonly Rule[], visit: (selector: ComplexSelector, start: number) => void): void {
  for (const rule of rules) {
    if (rule.kind === 'style') {
      for (const selector of selectorsOf(rule.selector) ?? []) visit(selector, rule.selectorSpan.start);
      eachSelector(rule.nested, visit);
    } else if (rule.kind === 'group') eachSelector(rule.rules, visit);
  }
}

/** All classes and IDs of an element, as selectors spell them. */
export function marksOf(element: {
  readonly id: string | undefined;
  readonly classes: readonly string[];
}): readonly MarkedName[] {
  const classes = element.classes.map((name) => `.${name}`);
  return element.id === undefined ? classes : [...classes, `#${element.id}`];
}

/** The classes that selectors of these rules ask for, in lower case. */
export function classesOf(rules: readonly Rule[]): readonly string[] {
  const out = new Set<string>();
  eachSelector(rules, (selector) => {
    for (const name of namesIn(selector)) if (name.startsWith('.')) out.add(lowered(name.slice(1)));
  });
  return [...out];
}

/** Types, classes and IDs, in lower case, without which no element of a page can match: `p`, `.notice`, `#form`. */
export const neededNames = ({ compounds }: ComplexSelector): readonly string[] =>
  compounds.flatMap(({ simples }) => simples.flatMap(neededBy));

function neededBy(simple: SimpleSelector): readonly string[] {
  switch (simple.kind) {
    case 'id':
      return [`#${lowered(simple.name)}`];
    case 'class':
      return [`.${lowered(simple.name)}`];
    case 'type':
      return [simple.lower];
    case 'matches':
      return simple.name === 'is' || simple.name === 'where' ? neededByAll(simple.list) : [];
    default:
      return [];
  }
}

/** Whichever of a list matches, it needs these. */
function neededByAll([first, ...others]: SelectorList): readonly string[] {
  if (!first) return [];
  const rest = others.map((one) => new Set(neededNames(one)));
  return neededNames(first).filter((name) => rest.every((names) => names.has(name)));
}
