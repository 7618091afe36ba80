import { Type } from '@sinclair/typebox';
import { parseSheet } from '../../sheet/parseSheet.ts';
import { fail, succeed } from '../../source/result.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { editableSheet, ruleProblems, type RuleProblem } from './ruleRef.ts';
import { rulesOf } from './sheetRules.ts';

/** Makes rules that stand in a comment rules again. */
export interface CommentIn {
  readonly kind: 'comment-in';
  readonly sheet: string;
  /** The selector of the first rule in the comment. */
  readonly selector: string;
}

export type CommentInProblem = RuleProblem | { readonly kind: 'no-such-comment'; readonly selector: string };

export const commentIn = operationType<CommentIn, CommentInProblem>()({
  kind: 'comment-in',
  schema: Type.Object(
    {
      kind: Type.Literal('comment-in'),
      sheet: fields.sheet,
      selector: Type.String({ minLength: 1, maxLength: 20_000 }),
    },
    closed,
  ),
  plan(site, { sheet: path, selector }) {
    const opened = editableSheet(site, path);
    if (!opened.ok) return opened;
    const { file, text, sheet } = opened.value;
    for (const span of sheet.comments) {
      const inside = text.slice(span.start + 2, span.end - 2);
      const rules = rulesOf(parseSheet(inside));
      if (rules[0]?.rule.selector !== selector || !rules.every(({ rule }) => rule.closed)) continue;
      const edits = [{ span, text: inside.trim() }];
      const changes = { created: [], edited: [{ path, hash: file.hash, edits }], deleted: [] };
      return succeed({ changes, sentence: `Make ${selector} in ${path} a rule again` });
    }
    return fail({ kind: 'no-such-comment', selector });
  },
  problems: {
    ...ruleProblems,
    'no-such-comment': ({ selector }) => `No comment of this sheet holds a whole rule ${selector}.`,
  },
  choosesLook: true,
});
