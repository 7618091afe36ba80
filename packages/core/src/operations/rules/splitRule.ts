import { Type } from '@sinclair/typebox';
import { splitSelectors } from '../../survey/selectorText.ts';
import { lineEndOf } from '../../source/lineEnds.ts';
import { indentationAt } from '../../source/removal.ts';
import { fail, succeed } from '../../source/result.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { editableSheet, findRule, RuleRefSchema, ruleProblems, type RuleProblem, type RuleRef } from './ruleRef.ts';

/** A rule with several selectors becomes a rule for each of them, one after the other. */
export interface SplitRule {
  readonly kind: 'split-rule';
  readonly sheet: string;
  readonly rule: RuleRef;
}

export type SplitRuleProblem = RuleProblem | { readonly kind: 'one-selector'; readonly selector: string };

export const splitRule = operationType<SplitRule, SplitRuleProblem>()({
  kind: 'split-rule',
  schema: Type.Object({ kind: Type.Literal('split-rule'), sheet: fields.sheet, rule: RuleRefSchema }, closed),
  plan(site, { sheet: path, rule: ref }) {
    const opened = editableSheet(site, path);
    if (!opened.ok) return opened;
    const { file, text, sheet } = opened.value;
    const rule = findRule(sheet, ref)?.rule;
    if (!rule) return fail({ kind: 'rule-not-in-sheet', sheet: path, selector: ref.selector });
    const selectors = splitSelectors(text.slice(rule.selectorSpan.start, rule.selectorSpan.end));
    if (selectors.length < 2 || !rule.closed) return fail({ kind: 'one-selector', selector: ref.selector });
    const body = text.slice(rule.selectorSpan.end, rule.span.end);
    const gap = lineEndOf(text) + indentationAt(text, rule.span.start);
    const edits = [{ span: rule.span, text: selectors.map((selector) => selector + body).join(gap) }];
    const changes = { created: [], edited: [{ path, hash: file.hash, edits }], deleted: [] };
    return succeed({ changes, sentence: `Part ${ref.selector} in ${path} into ${selectors.length} rules` });
  },
  problems: {
    ...ruleProblems,
    'one-selector': ({ selector }) =>
      `${selector} is one selector, or its rule is not closed: there is nothing to part.`,
  },
});
