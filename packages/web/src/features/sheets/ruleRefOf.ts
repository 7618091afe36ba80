import type { OutlinedRule, RuleRef } from '@syndeton/core';

/** The kind of data a rule is dragged as. */
export const ruleDrag = 'application/x-syndeton-rule';

/** How operations name a rule of a text: by what it says, and which of several such rules it is. */
export function ruleRefOf(rule: OutlinedRule, rules: readonly OutlinedRule[]): RuleRef {
  const isAlike = (one: OutlinedRule): boolean =>
    !one.isNested && one.selector === rule.selector && one.under.join('\n') === rule.under.join('\n');
  const alike = rules.filter(isAlike);
  return {
    selector: rule.selector,
    ...(rule.under.length > 0 ? { under: [...rule.under] } : {}),
    nth: alike.findIndex(({ start }) => start === rule.start) + 1,
  };
}
