import { Type } from '@sinclair/typebox';
import { parseSelectorList } from '../../selectors/parseSelector.ts';
import type { Sheet, StyleRule } from '../../sheet/sheet.ts';
import { wholeLinesAndGap } from '../../source/removal.ts';
import { fail, succeed } from '../../source/result.ts';
import type { Edit } from '../../source/span.ts';
import { comparableValue } from '../../values/comparableValue.ts';
import { longhandsOf } from '../../values/longhands.ts';
import { closed, fields, operationType } from '../operationType.ts';
import {
  editableSheet,
  ruleProblems,
  rulesOf,
  underOf,
  withLead,
  type FoundRule,
  type RuleProblem,
} from './ruleRef.ts';

/** Rules of a sheet that say the same become one with all their selectors, where nothing between them says the same properties. */
export interface GroupRules {
  readonly kind: 'group-rules';
  readonly sheet: string;
}

export type GroupRulesProblem = RuleProblem | { readonly kind: 'nothing-to-group'; readonly sheet: string };

/** Rules that can be one, each group in the order of the text: the first takes the selectors of the others. */
export function equalRules(sheet: Sheet): readonly (readonly StyleRule[])[] {
  const rules = rulesOf(sheet).filter(({ rule }) => rule.nested.length === 0 && rule.closed);
  const groups: StyleRule[][] = [];
  const open = new Map<string, StyleRule[]>();
  for (const one of rules) {
    const { rule } = one;
    const key = `${underOf(one.groups).join('\n')}{${said(rule)}`;
    const isPlain = rule.declarations.length > 0 && !/:-(moz|ms|webkit|o)-/.test(rule.selector) && parseSelectorList(rule.selector); // prettier-ignore
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
  declarations.map(({ property, value, important }) => `${property}:${comparableValue(property, value)}${important ? '!' : ''}`).join(';'); // prettier-ignore

/** Whether a rule says anything that rules of this key say. */
function competes({ rule }: FoundRule, key: string, rules: readonly FoundRule[]): boolean {
  const of = rules.find((one) => `${underOf(one.groups).join('\n')}{${said(one.rule)}` === key)!.rule;
  const longhands = new Set(of.declarations.flatMap(({ property }) => [property, ...longhandsOf(property)]));
  return (
    rule.nested.length > 0 ||
    rule.declarations.some(({ property }) => property === 'all' || [property, ...longhandsOf(property)].some((name) => longhands.has(name))) // prettier-ignore
  );
}

export const groupRules = operationType<GroupRules, GroupRulesProblem>()({
  kind: 'group-rules',
  schema: Type.Object({ kind: Type.Literal('group-rules'), sheet: fields.sheet }, closed),
  plan(site, { sheet: path }) {
    const opened = editableSheet(site, path);
    if (!opened.ok) return opened;
    const { file, text, sheet } = opened.value;
    const groups = equalRules(sheet);
    if (groups.length === 0) return fail({ kind: 'nothing-to-group', sheet: path });
    const whole = { start: 0, end: text.length };
    const edits = groups.flatMap(([first, ...others]): Edit[] => [
      { span: first!.selectorSpan, text: [first!, ...others].map(({ selector }) => selector).join(', ') },
      ...others.map((rule) => ({ span: wholeLinesAndGap(text, withLead(text, sheet, rule), whole), text: '' })),
    ]);
    const gone = groups.reduce((sum, group) => sum + group.length - 1, 0);
    const changes = { created: [], edited: [{ path, hash: file.hash, edits }], deleted: [] };
    return succeed({ changes, sentence: `Group equal rules of ${path}: ${gone} fewer` });
  },
  problems: {
    ...ruleProblems,
    'nothing-to-group': ({ sheet }) =>
      `${sheet} has no equal rules that could be one: between those that say the same, others say the same properties.`,
  },
});
