import { Type } from '@sinclair/typebox';
import { fail, succeed } from '../../source/result.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { editWays, withoutWays } from './linksAndImports.ts';

/** Takes a sheet out of the site with all that leads to it. What it alone said is said no more. */
export interface DeleteSheet {
  readonly kind: 'delete-sheet';
  readonly sheet: string;
}

export type DeleteSheetProblem = { readonly kind: 'sheet-gone'; readonly sheet: string };

export const deleteSheet = operationType<DeleteSheet, DeleteSheetProblem>()({
  kind: 'delete-sheet',
  schema: Type.Object({ kind: Type.Literal('delete-sheet'), sheet: fields.sheet }, closed),
  plan(site, { sheet }) {
    if (site.files.get(sheet)?.kind !== 'sheet') return fail({ kind: 'sheet-gone', sheet });
    const { edited, pages } = editWays(site, sheet, withoutWays);
    const changes = { created: [], edited, deleted: [sheet] };
    const sentence = `Delete ${sheet}${pages.length === 0 ? '' : `, with its links on ${onPages(pages)}`}`;
    return succeed({ changes, sentence });
  },
  problems: { 'sheet-gone': ({ sheet }) => `There is no sheet ${sheet} in this site.` },
});
