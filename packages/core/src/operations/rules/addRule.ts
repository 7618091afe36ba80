import { Type } from '@sinclair/typebox';
import { parseSelectorList } from '../../selectors/parseSelector.ts';
import type { ChangeSet } from '../../source/changeSet.ts';
import { lineEndOf } from '../../source/lineEnds.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import { ruleStyleOf } from '../gather/ruleStyle.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { breaksOut, changeRuleProblems, SaidSchema, type ChangeRuleProblem } from './changeRule.ts';
import { placedText, placeForRules } from './placeForRules.ts';
import { printedRule, type Said } from './ruleEdits.ts';
import { editableSheet, RuleRefSchema, type RuleRef } from './ruleRef.ts';

/** A new rule in a sheet, at its end or before another rule. */
export interface AddRule {
  readonly kind: 'add-rule';
  readonly sheet: string;
  readonly selector: string;
  readonly declarations: readonly Said[];
  readonly before?: RuleRef;
}

type AddRuleProblem = Exclude<ChangeRuleProblem, { readonly kind: 'not-said-in-rule' | 'nothing-to-change' }>;

export function planAddRule(site: Site, operation: AddRule): Result<ChangeSet, AddRuleProblem> {
  const { sheet: path, selector, declarations, before } = operation;
  const found = editableSheet(site, path);
  if (!found.ok) return found;
  const { file, text } = found.value;
  if (!parseSelectorList(selector)) return fail({ kind: 'selector-refused', selector });
  const broken = declarations.find(breaksOut);
  if (broken) return fail({ kind: 'value-with-brace', ...broken });
  const place = placeForRules(path, found.value, before);
  if (!place.ok) return place;
  const lineEnd = lineEndOf(text);
  const written = printedRule(selector, declarations, ruleStyleOf(site), lineEnd);
  const edits = [
    { span: { start: place.value, end: place.value }, text: placedText(text, place.value, written, lineEnd) },
  ];
  return succeed({ created: [], edited: [{ path, hash: file.hash, edits }], deleted: [] });
}

const { 'not-said-in-rule': _said, 'nothing-to-change': _nothing, ...problems } = changeRuleProblems;

export const addRule = operationType<AddRule, AddRuleProblem>()({
  kind: 'add-rule',
  schema: Type.Object(
    {
      kind: Type.Literal('add-rule'),
      sheet: fields.sheet,
      selector: Type.String({ minLength: 1, maxLength: 20_000 }),
      declarations: Type.Array(SaidSchema, { minItems: 1, maxItems: 500 }),
      before: Type.Optional(RuleRefSchema),
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planAddRule(site, operation);
    if (!plan.ok) return plan;
    return succeed({ changes: plan.value, sentence: `Add a rule for ${operation.selector} to ${operation.sheet}` });
  },
  problems,
  choosesLook: true,
});
