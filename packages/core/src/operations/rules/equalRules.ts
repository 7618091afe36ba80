import { parseSelectorList } from '../../selectors/parseSelector.ts';
import type { Sheet, StyleRule } from '../../sheet/sheet.ts';
import { comparableValue } from '../../values/comparableValue.ts';
import { longhandsOf } from '../../values/longhands.ts';
import { rulesOf, underOf, type FoundRule } from './sheetRules.ts';

/** Rules that can be one, each group in the order of the text: the first takes the selectors of the others. */
export function equalRules(sheet: Sheet): readonly (readonly StyleRule[])[] {
  const rules = rulesOf(sheet).filter(({ rule }) => rule.nested.length === 0 && rule.closed);
  const groups: StyleRule[][] = [];
  const open = new Map<string, StyleRule[]>();
  for (const one of rules) {
    const { rule } = one;
    const key = `${underOf(one.groups).join('\n')}{${said(rule)}`;
    const isPlain =
      rule.declarations.length > 0 && !/:-(moz|ms|webkit|o)-/.test(rule.selector) && parseSelectorList(rule.selector);
    const group = isPlain ? open.get(key) : undefined;
    if (group) group.push(rule);
    // what comes between competes from now on
    for (const [other] of open) if (other !== key && competes(one, other, rules)) open.delete(other);
    if (isPlain && !group) {
      const fresh = [rule];
      groups.push(fresh);
      open.set(key, fresh);
    }
  }
  return groups.filter((group) => group.length > 1);
}

const said = ({ declarations }: StyleRule): string =>
  declarations
    .map(({ property, value, important }) => `${property}:${comparableValue(property, value)}${important ? '!' : ''}`)
    .join(';');

/** Whether a rule says anything that rules of this key say. */
function competes({ rule }: FoundRule, key: string, rules: readonly FoundRule[]): boolean {
  const of = rules.find((one) => `${underOf(one.groups).join('\n')}{${said(one.rule)}` === key)!.rule;
  const longhands = new Set(of.declarations.flatMap(({ property }) => [property, ...longhandsOf(property)]));
  return (
    rule.nested.length > 0 ||
    rule.declarations.some(
      ({ property }) => property === 'all' || [property, ...longhandsOf(property)].some((name) => longhands.has(name)),
    )
  );
}
