import { closed, operationType, type ProblemSentences } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import type { ChangeSet } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import { smallestEdit } from '../../source/smallestEdit.ts';

/** A sheet's text as a person edited it. `hash` is of the file the edit was made on. */
export interface EditSheet {
  readonly kind: 'edit-sheet';
  readonly path: string;
  readonly hash: string;
  readonly text: string;
}

export type EditSheetProblem =
  | { readonly kind: 'no-such-sheet'; readonly path: string }
  | { readonly kind: 'sheet-changed'; readonly path: string }
  | { readonly kind: 'sheet-not-editable'; readonly path: string }
  | { readonly kind: 'page-markup'; readonly path: string; readonly found: string };

/** Plans the edit as the smallest span that differs. Page markup pasted into a sheet is refused: its first rule would die. */
export function planEditSheet(site: Site, operation: EditSheet): Result<ChangeSet, EditSheetProblem> {
  const { path } = operation;
  const file = site.files.get(path);
  if (!file || file.kind !== 'sheet') return fail({ kind: 'no-such-sheet', path });
  if (file.text === undefined) return fail({ kind: 'sheet-not-editable', path });
  if (file.hash !== operation.hash) return fail({ kind: 'sheet-changed', path });
  const markup = /<\/?(style|html|head|body|link|!doctype)\b[^>]*>?/i;
  const found = markup.exec(operation.text);
  if (found && !markup.test(file.text)) return fail({ kind: 'page-markup', path, found: found[0] });
  const edit = smallestEdit(file.text, operation.text);
  return succeed({ created: [], edited: edit ? [{ path, hash: file.hash, edits: [edit] }] : [], deleted: [] });
}

export const editSheetProblems: ProblemSentences<EditSheetProblem> = {
  'no-such-sheet': (problem) => `There is no sheet ${problem.path} in this site.`,
  'sheet-changed': (problem) =>
    `${problem.path} was changed after this edit was made. Take the edit out of the draft and make it again.`,
  'sheet-not-editable': (problem) =>
    `${problem.path} does not encode back to its own bytes, so it cannot be edited here.`,
  'page-markup': (problem) =>
    `${problem.found} is page markup. A sheet holds CSS only; the first rule after it would be lost.`,
};

export const editSheet = operationType<EditSheet, EditSheetProblem>()({
  kind: 'edit-sheet',
  schema: Type.Object(
    {
      kind: Type.Literal('edit-sheet'),
      path: Type.String(),
      hash: Type.String(),
      text: Type.String({ maxLength: 20_000_000 }),
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planEditSheet(site, operation);
    return plan.ok ? succeed({ changes: plan.value, sentence: `Edit ${operation.path}` }) : plan;
  },
  problems: editSheetProblems,
});
