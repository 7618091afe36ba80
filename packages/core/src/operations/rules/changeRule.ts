import { Type } from '@sinclair/typebox';
import { parseSelectorList } from '../../selectors/parseSelector.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import type { ChangeSet } from '../../source/changeSet.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { dropFromRule, setInRule, type Said } from './ruleEdits.ts';
import { editableSheet, findRule, RuleRefSchema, ruleProblems, type RuleProblem, type RuleRef } from './ruleRef.ts';

/** Lets a rule of a sheet say something else: other selectors, values put in or changed, properties taken out. */
export interface ChangeRule {
  readonly kind: 'change-rule';
  readonly sheet: string;
  readonly rule: RuleRef;
  readonly selector?: string;
  readonly set?: readonly Said[];
  readonly drop?: readonly string[];
}

export type ChangeRuleProblem =
  | RuleProblem
  | { readonly kind: 'selector-refused'; readonly selector: string }
  | { readonly kind: 'not-said-in-rule'; readonly selector: string; readonly property: string }
  | { readonly kind: 'value-with-brace'; readonly property: string; readonly value: string }
  | { readonly kind: 'nothing-to-change'; readonly selector: string };

export const SaidSchema = Type.Object(
  {
    property: Type.String({ pattern: '^-{0,2}[A-Za-z_][\\w-]*$', maxLength: 400 }),
    value: Type.String({ minLength: 1, maxLength: 100_000 }),
    important: Type.Optional(Type.Boolean()),
  },
  closed,
);

/** What would end the declaration before its end. */
export const breaksOut = ({ value }: Said): boolean => /[;{}]/.test(value.replace(/"[^"]*"|'[^']*'|\([^()]*\)/g, ''));

export function planChangeRule(site: Site, operation: ChangeRule): Result<ChangeSet, ChangeRuleProblem> {
  const { sheet: path, rule: ref, selector, set = [], drop = [] } = operation;
  const found = editableSheet(site, path);
  if (!found.ok) return found;
  const { file, text, sheet } = found.value;
  const rule = findRule(sheet, ref)?.rule;
  if (!rule) return fail({ kind: 'rule-not-in-sheet', sheet: path, selector: ref.selector });
  if (selector !== undefined && !parseSelectorList(selector)) return fail({ kind: 'selector-refused', selector });
  const broken = set.find(breaksOut);
  if (broken) return fail({ kind: 'value-with-brace', ...broken });
  const edits: Edit[] = [];
  if (selector !== undefined && selector !== rule.selector) edits.push({ span: rule.selectorSpan, text: selector });
  for (const property of drop) {
    const said = rule.declarations.filter((one) => one.property === property);
    if (said.length === 0) return fail({ kind: 'not-said-in-rule', selector: ref.selector, property });
    edits.push(...said.map((one) => dropFromRule(text, one)));
  }
  edits.push(...set.map((said) => setInRule(text, rule, said)));
  if (edits.length === 0) return fail({ kind: 'nothing-to-change', selector: ref.selector });
  return succeed({ created: [], edited: [{ path, hash: file.hash, edits }], deleted: [] });
}

export const changeRuleProblems = {
  ...ruleProblems,
  'selector-refused': ({ selector }: { readonly selector: string }) =>
    `Browsers cannot read the selector ${selector}. Write it like .notice, nav a or #form p.`,
  'not-said-in-rule': ({ selector, property }: { readonly selector: string; readonly property: string }) =>
    `${selector} does not say ${property}.`,
  'value-with-brace': ({ property, value }: { readonly property: string; readonly value: string }) =>
    `The value ${value} of ${property} would end the rule before its end. A value holds no ; { or } outside quotes.`,
  'nothing-to-change': ({ selector }: { readonly selector: string }) => `${selector} says all this already.`,
};

export const changeRule = operationType<ChangeRule, ChangeRuleProblem>()({
  kind: 'change-rule',
  schema: Type.Object(
    {
      kind: Type.Literal('change-rule'),
      sheet: fields.sheet,
      rule: RuleRefSchema,
      selector: Type.Optional(Type.String({ minLength: 1, maxLength: 20_000 })),
      set: Type.Optional(Type.Array(SaidSchema, { maxItems: 500 })),
      drop: Type.Optional(Type.Array(Type.String({ maxLength: 400 }), { maxItems: 500 })),
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planChangeRule(site, operation);
    return plan.ok ? succeed({ changes: plan.value, sentence: sentenceOf(operation) }) : plan;
  },
  problems: changeRuleProblems,
  choosesLook: true,
});

function sentenceOf({ sheet, rule, selector, set = [], drop = [] }: ChangeRule): string {
  const [first] = set;
  const what =
    first && set.length === 1 && drop.length === 0 && selector === undefined
      ? `say ${first.property}: ${first.value}`
      : set.length === 0 && selector === undefined
        ? `no longer say ${drop.join(', ')}`
        : selector !== undefined && set.length + drop.length === 0
          ? `be for ${selector}`
          : `say ${set.length + drop.length} things otherwise`;
  return `Let ${rule.selector} in ${sheet} ${what}`;
}
