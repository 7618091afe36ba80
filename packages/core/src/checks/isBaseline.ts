import { parseSelectorList } from '../selectors/parseSelector.ts';
import type { Sheet } from '../sheet/sheet.ts';

/**
 * Whether a sheet evens out what browsers bring along: nearly all its rules name elements only, and one of them takes margins
 * or padding back. Common practice; such a sheet belongs before all others.
 */
export function isBaseline(sheet: Sheet | undefined): boolean {
  const rules = sheet?.rules.filter((rule) => rule.kind === 'style') ?? [];
  if (rules.length < 3) return false;
  const plain = rules.filter((rule) => namesElementsOnly(rule.selector));
  const resets = plain.some((rule) =>
    rule.declarations.some((d) => /^(margin|padding)$/.test(d.property) && /^0/.test(d.value)),
  );
  return resets && plain.length >= rules.length * 0.6;
}

/** No class, no ID: a rule for what every page has. */
export function namesElementsOnly(selector: string): boolean {
  const list = parseSelectorList(selector);
  return (
    list !== undefined &&
    list.every((complex) =>
      complex.compounds.every((c) =>
        c.simples.every(
          (s) => s.kind === 'type' || s.kind === 'universal' || s.kind === 'pseudo-class' || s.kind === 'attribute',
        ),
      ),
    )
  );
}
