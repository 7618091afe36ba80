import { fail, type Result } from '../../source/result.ts';
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
