import { Type } from '@sinclair/typebox';
import type { ChangeSet } from '../../source/changeSet.ts';
import { wholeLinesAndGap } from '../../source/removal.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { closed, fields, operationType } from '../operationType.ts';
import {
  editableSheet,
  findRules,
  namesOfRules,
  RuleRefSchema,
  ruleProblems,
  type RuleProblem,
  type RuleRef,
} from './ruleRef.ts';
import { withLead } from './sheetRules.ts';

/** Takes rules out of a sheet with the comments right above them, or leaves them there as comments. */
export interface DeleteRules {
  readonly kind: 'delete-rules';
  readonly sheet: string;
  readonly rules: readonly RuleRef[];
  readonly keep?: 'comment';
}

export type DeleteRulesProblem = RuleProblem | { readonly kind: 'comment-inside'; readonly selector: string };

export function planDeleteRules(site: Site, operation: DeleteRules): Result<ChangeSet, DeleteRulesProblem> {
  const { sheet: path, rules: refs, keep } = operation;
  const opened = editableSheet(site, path);
  if (!opened.ok) return opened;
  const { file, text, sheet } = opened.value;
  const found = findRules(path, sheet, refs);
  if (!found.ok) return found;
  const whole = { start: 0, end: text.length };
  const edits: Edit[] = [];
  for (const { rule } of found.value) {
    const written = text.slice(rule.span.start, rule.span.end);
    if (keep === 'comment') {
      // comments do not stand in comments
      if (/\*\//.test(written) || !rule.closed) return fail({ kind: 'comment-inside', selector: rule.selector });
      edits.push({ span: rule.span, text: `/* ${written} */` });
    } else edits.push({ span: wholeLinesAndGap(text, withLead(text, sheet, rule), whole), text: '' });
  }
  return succeed({ created: [], edited: [{ path, hash: file.hash, edits }], deleted: [] });
}

export const deleteRules = operationType<DeleteRules, DeleteRulesProblem>()({
  kind: 'delete-rules',
  schema: Type.Object(
    {
      kind: Type.Literal('delete-rules'),
      sheet: fields.sheet,
      rules: Type.Array(RuleRefSchema, { minItems: 1, maxItems: 10_000 }),
      keep: Type.Optional(Type.Literal('comment')),
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planDeleteRules(site, operation);
    if (!plan.ok) return plan;
    const names = namesOfRules(operation.rules);
    const sentence = operation.keep === 'comment' ? `Comment out ${names} in ${operation.sheet}` : `Take ${names} out of ${operation.sheet}`; // prettier-ignore
    return succeed({ changes: plan.value, sentence });
  },
  problems: {
    ...ruleProblems,
    'comment-inside': ({ selector }) =>
      `${selector} holds a comment or is not closed, so it cannot stand in a comment as a whole. Take the comment out of it first.`,
  },
});
