import type { Declaration, Rule } from '../../sheet/sheet.ts';

/** All declarations of style rules, nested ones included; what definitions such as `@font-face` say is not there. */
export const declarationsIn = (rules: readonly Rule[]): readonly Declaration[] =>
  rules.flatMap((rule) => {
    if (rule.kind === 'style') return [...rule.declarations, ...declarationsIn(rule.nested)];
    if (rule.kind === 'declarations') return rule.declarations;
    return rule.kind === 'group' ? declarationsIn(rule.rules) : [];
  });
