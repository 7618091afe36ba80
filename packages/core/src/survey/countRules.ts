import type { Rule } from '../sheet/sheet.ts';

/** Style rules in a list, those in groups and nested ones included. */
export function countRules(rules: readonly Rule[]): number {
  let count = 0;
  for (const rule of rules) {
    if (rule.kind === 'style') count += 1 + countRules(rule.nested);
    else if (rule.kind === 'group') count += countRules(rule.rules);
    else if (rule.kind === 'definition') count++;
  }
  return count;
}

/** Declarations in a list of rules, those in groups and nested ones included. */
export function countDeclarations(rules: readonly Rule[]): number {
  let count = 0;
  for (const rule of rules) {
    if (rule.kind === 'style') count += rule.declarations.length + countDeclarations(rule.nested);
    else if (rule.kind === 'declarations') count += rule.declarations.length;
    else if (rule.kind === 'group') count += countDeclarations(rule.rules);
  }
  return count;
}
