import { selectorsOf } from '../survey/selectorNames.ts';
import type { Sheet } from '../sheet/sheet.ts';

const known = new WeakMap<Sheet, boolean>();

/**
 * Whether a sheet evens out what browsers bring along: nearly all its rules name elements only, and one of them takes margins
 * or padding back. Common practice; such a sheet belongs before all others.
 */
export function isBaseline(sheet: Sheet | undefined): boolean {
  if (!sheet) return false;
  let answer = known.get(sheet);
  if (answer === undefined) known.set(sheet, (answer = evensOut(sheet)));
  return answer;
}

function evensOut(sheet: Sheet): boolean {
  const rules = sheet.rules.filter((rule) => rule.kind === 'style');
  if (rules.length < 3) return false;
  const plain = rules.filter((rule) => namesElementsOnly(rule.selector));
  const resets = plain.some((rule) =>
    rule.declarations.some((d) => /^(margin|padding)$/.test(d.property) && /^0/.test(d.value)),
  );
  return resets && plain.length >= rules.length * 0.6;
}

const plainKinds = new Set(['type', 'universal', 'pseudo-class', 'attribute']);

/** No class, no ID: a rule for what every page has. */
export const namesElementsOnly = (selector: string): boolean =>
  selectorsOf(selector)?.every(({ compounds }) =>
    compounds.every(({ simples }) => simples.every(({ kind }) => plainKinds.has(kind))),
  ) ?? false;
