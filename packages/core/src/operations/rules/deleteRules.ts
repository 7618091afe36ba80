import { Type } from '@sinclair/typebox';
import type { ChangeSet } from '../../source/changeSet.ts';
import type { StyleRule } from '../../sheet/sheet.ts';
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
import { removals } from './sheetRules.ts';

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
  const rules = found.value.map(({ rule }) => rule);
  const changed = (edits: readonly Edit[]): ChangeSet => ({
    created: [],
    edited: [{ path, hash: file.hash, edits }],
    deleted: [],
  });
  if (keep !== 'comment') return succeed(changed(removals(text, sheet, rules)));
  const written = (rule: StyleRule): string => text.slice(rule.span.start, rule.span.end);
  // comments do not stand in comments
  const inside = rules.find((rule) => /\*\//.test(written(rule)) || !rule.closed);
  if (inside) return fail({ kind: 'comment-inside', selector: inside.selector });
  return succeed(changed(rules.map((rule) => ({ span: rule.span, text: `/* ${written(rule)} */` }))));
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
    const sentence =
      operation.keep === 'comment'
        ? `Comment out ${names} in ${operation.sheet}`
        : `Take ${names} out of ${operation.sheet}`;
    return succeed({ changes: plan.value, sentence });
  },
  problems: {
    ...ruleProblems,
    'comment-inside': ({ selector }) =>
      `${selector} holds a comment or is not closed, so it cannot stand in a comment as a whole. Take the comment out of it first.`,
  },
});
