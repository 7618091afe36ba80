import { linkedPagesProblems } from './linkedPages.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import { wholeLines } from '../../source/removal.ts';
import { editLinks, type LinkedPagesPlan, type LinkedPagesProblem } from './linkedPages.ts';

/** Takes the links to a sheet out of pages; the sheet stays. Also for a path that leads to no file. */
export interface UnlinkSheet {
  readonly kind: 'unlink-sheet';
  readonly sheet: string;
  readonly pages?: readonly string[];
}

export function planUnlinkSheet(
  site: Site,
  { sheet, pages }: UnlinkSheet,
): Result<LinkedPagesPlan, LinkedPagesProblem> {
  const plan = editLinks(site, sheet, pages, ({ text }, links) =>
    links.map((link) => ({ span: wholeLines(text, link.span), text: '' })),
  );
  return plan.ok && !plan.value.linked ? fail({ kind: 'not-linked-there', sheet }) : plan;
}

export const unlinkSheet = operationType<UnlinkSheet, LinkedPagesProblem>()({
  kind: 'unlink-sheet',
  schema: Type.Object({ kind: Type.Literal('unlink-sheet'), sheet: fields.sheet, pages: fields.somePages }, closed),
  plan(site, operation) {
    const plan = planUnlinkSheet(site, operation);
    if (!plan.ok) return plan;
    const { changes, pages } = plan.value;
    const sentence = `Take the link to ${operation.sheet} out of ${onPages(pages)}`;
    return succeed({ changes, sentence, leftOut: [{ sheet: operation.sheet, pages }] });
  },
  problems: linkedPagesProblems,
});
