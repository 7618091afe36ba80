import { linkedPagesProblems } from './linkedPages.ts';
import { describePlace, LinkPlaceSchema } from './linkPlace.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import { editLinks, type LinkedPagesPlan, type LinkedPagesProblem } from './linkedPages.ts';
import { moveTag, type LinkPlace } from './linkPlace.ts';

/** Takes a sheet's link to another place among the sources of pages, its tag as it is. Of two links the later one counts. */
export interface MoveLink {
  readonly kind: 'move-link';
  readonly sheet: string;
  readonly pages?: readonly string[];
  readonly place: LinkPlace;
}

export type MoveLinkProblem = LinkedPagesProblem | { readonly kind: 'stands-there'; readonly sheet: string };

export function planMoveLink(site: Site, { sheet, pages, place }: MoveLink): Result<LinkedPagesPlan, MoveLinkProblem> {
  const plan = editLinks(site, sheet, pages, (page, links) => moveTag(page, links.at(-1)!, place));
  if (!plan.ok) return plan;
  if (!plan.value.linked) return fail({ kind: 'not-linked-there', sheet });
  return plan.value.pages.length === 0 ? fail({ kind: 'stands-there', sheet }) : plan;
}

export const moveLink = operationType<MoveLink, MoveLinkProblem>()({
  kind: 'move-link',
  schema: Type.Object(
    { kind: Type.Literal('move-link'), sheet: fields.sheet, pages: fields.somePages, place: LinkPlaceSchema },
    closed,
  ),
  plan(site, operation) {
    const plan = planMoveLink(site, operation);
    if (!plan.ok) return plan;
    const { changes, pages } = plan.value;
    const sentence = `Move the link to ${operation.sheet} ${describePlace(operation.place)} on ${onPages(pages)}`;
    return succeed({ changes, sentence });
  },
  problems: {
    ...linkedPagesProblems,
    'stands-there': ({ sheet }) => `The link to ${sheet} stands at that place already on these pages.`,
  },
});
