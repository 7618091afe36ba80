import { Type } from '@sinclair/typebox';
import { fail, succeed } from '../../source/result.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { duplicateEdits } from './duplicateEdits.ts';
import { editableSheet, ruleProblems, type RuleProblem } from './ruleRef.ts';

/** Takes out of a sheet what never counts whatever the page: rules said again further down, declarations their own rule beats. */
export interface DropDuplicates {
  readonly kind: 'drop-duplicates';
  readonly sheet: string;
}

export type DropDuplicatesProblem = RuleProblem | { readonly kind: 'nothing-twice'; readonly sheet: string };

export const dropDuplicates = operationType<DropDuplicates, DropDuplicatesProblem>()({
  kind: 'drop-duplicates',
  schema: Type.Object({ kind: Type.Literal('drop-duplicates'), sheet: fields.sheet }, closed),
  plan(site, { sheet: path }) {
    const opened = editableSheet(site, path);
    if (!opened.ok) return opened;
    const edits = duplicateEdits(opened.value);
    if (edits.length === 0) return fail({ kind: 'nothing-twice', sheet: path });
    const changes = { created: [], edited: [{ path, hash: opened.value.file.hash, edits }], deleted: [] };
    return succeed({
      changes,
      sentence: `Drop ${edits.length === 1 ? 'a duplicate' : `${edits.length} duplicates`} from ${path}`,
    });
  },
  problems: { ...ruleProblems, 'nothing-twice': ({ sheet }) => `${sheet} says nothing twice.` },
});
