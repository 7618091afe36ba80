import { Type } from '@sinclair/typebox';
import { applyChangeSet } from '../../source/changeSet.ts';
import { fail, succeed } from '../../source/result.ts';
import { planLinkSheet, type LinkSheetProblem } from '../links/linkSheet.ts';
import { linkSheet } from '../links/linkSheet.ts';
import { LinkPlaceSchema, type LinkPlace } from '../links/linkPlace.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { describeSheetPathProblem, parseSheetPath, type SheetPathProblem } from '../sheetPath.ts';

/** A sheet that was not there, with what it says, linked from pages when any are named. */
export interface NewSheet {
  readonly kind: 'new-sheet';
  readonly sheet: string;
  readonly text: string;
  readonly pages?: readonly string[];
  /** Behind all other sources when absent. */
  readonly place?: LinkPlace;
}

export type NewSheetProblem =
  | LinkSheetProblem
  | { readonly kind: 'new-sheet-name'; readonly path: SheetPathProblem }
  | { readonly kind: 'sheet-there'; readonly path: string };

export const newSheet = operationType<NewSheet, NewSheetProblem>()({
  kind: 'new-sheet',
  schema: Type.Object(
    {
      kind: Type.Literal('new-sheet'),
      sheet: fields.sheet,
      text: Type.String({ maxLength: 20_000_000 }),
      pages: fields.somePages,
      place: Type.Optional(LinkPlaceSchema),
    },
    closed,
  ),
  plan(site, { sheet, text, pages = [], place = { at: 'last' } }) {
    const path = parseSheetPath(sheet, site);
    if (!path.ok) return fail({ kind: 'new-sheet-name', path: path.problem });
    if (site.files.has(path.value)) return fail({ kind: 'sheet-there', path: path.value });
    const created = [{ path: path.value, text }];
    const bare = { created, edited: [], deleted: [] };
    if (pages.length === 0) return succeed({ changes: bare, sentence: `Make ${path.value}, linked from no page yet` });
    const made = applyChangeSet(site, bare);
    if (!made.ok) throw new Error(`${path.value} cannot be made: ${made.problem.kind}`);
    const links = planLinkSheet(made.value, { kind: 'link-sheet', sheet: path.value, pages, place });
    if (!links.ok) return links;
    const changes = { ...bare, edited: links.value.changes.edited };
    return succeed({ changes, sentence: `Make ${path.value} and link it from ${onPages(links.value.pages)}` });
  },
  problems: {
    ...linkSheet.problems,
    'new-sheet-name': ({ path }) => describeSheetPathProblem(path),
    'sheet-there': ({ path }) => `${path} is there already. Choose a name that no file has.`,
  },
});
