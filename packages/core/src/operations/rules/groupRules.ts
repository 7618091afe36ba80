import { Type } from '@sinclair/typebox';
import { wholeLinesAndGap } from '../../source/removal.ts';
import { fail, succeed } from '../../source/result.ts';
import type { Edit } from '../../source/span.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { equalRules } from './equalRules.ts';
import { editableSheet, ruleProblems, type RuleProblem } from './ruleRef.ts';
import { withLead } from './sheetRules.ts';

/** Rules of a sheet that say the same become one with all their selectors, where nothing between them says the same properties. */
export interface GroupRules {
  readonly kind: 'group-rules';
  readonly sheet: string;
}

export type GroupRulesProblem = RuleProblem | { readonly kind: 'nothing-to-group'; readonly sheet: string };

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
