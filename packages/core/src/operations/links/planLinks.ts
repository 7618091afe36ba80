import { succeed, type Result } from '../../source/result.ts';
import type { ChangeSet } from '../../source/changeSet.ts';
import type { Site } from '../../source/site.ts';
import { planAddBaseline, type AddBaseline } from './addBaseline.ts';
import { planCopyLinks, type CopyLinks } from './copyLinks.ts';
import { planImportToLink, type ImportToLink } from './importToLink.ts';
import type { LinkPlace } from './linkPlace.ts';
import type { LinkProblem } from './linkProblems.ts';
import { planLinkSheet, type LinkSheet } from './linkSheet.ts';
import { planLinkToImport, type LinkToImport } from './linkToImport.ts';
import { planMoveLink, type MoveLink } from './moveLink.ts';
import { planRenameSheet, type RenameSheet } from '../sheets/renameSheet.ts';
import { planSetLink, type SetLink } from './setLink.ts';
import { planUnlinkSheet, type UnlinkSheet } from './unlinkSheet.ts';

/** Operations on the links of pages. */
export type LinkOperation =
  LinkSheet | UnlinkSheet | MoveLink | SetLink | ImportToLink | LinkToImport | CopyLinks | AddBaseline | RenameSheet;

/** What a link operation would change, and in one sentence. */
export function planLinks(
  site: Site,
  operation: LinkOperation,
): Result<{ readonly changes: ChangeSet; readonly sentence: string }, LinkProblem> {
  switch (operation.kind) {
    case 'link-sheet':
      return said(planLinkSheet(site, operation), ({ pages }) => {
        const media = operation.media?.trim() ?? '';
        return `Link ${operation.sheet}${media === '' ? '' : ` for ${media}`} from ${onPages(pages)}`;
      });
    case 'unlink-sheet':
      return said(planUnlinkSheet(site, operation), ({ pages }) => `Take the link to ${operation.sheet} out of ${onPages(pages)}`); // prettier-ignore
    case 'move-link':
      return said(planMoveLink(site, operation), ({ pages }) => `Move the link to ${operation.sheet} ${describePlace(operation.place)} on ${onPages(pages)}`); // prettier-ignore
    case 'set-link':
      return said(planSetLink(site, operation), ({ pages }) => {
        const { media, paths } = operation;
        const what = [
          ...(media === undefined ? [] : [`for ${/^(all)?$/i.test(media.trim()) ? 'all media' : media.trim()}`]),
          ...(paths === undefined
            ? []
            : [paths === 'page' ? 'by a path from the page' : paths === 'root' ? 'by a path from the site root' : 'with the host name']), // prettier-ignore
        ];
        return `Link ${operation.sheet} ${what.join(', ')} on ${onPages(pages)}`;
      });
    case 'import-to-link':
      return said(planImportToLink(site, operation), ({ pages }) => `Turn the imports of blocks into links on ${onPages(pages)}`); // prettier-ignore
    case 'link-to-import':
      return said(planLinkToImport(site, operation), ({ pages }) => `Turn the link to ${operation.sheet} into an import on ${onPages(pages)}`); // prettier-ignore
    case 'copy-links':
      return said(planCopyLinks(site, operation), ({ pages }) => `Link from ${onPages(pages)} what ${operation.from} links`); // prettier-ignore
    case 'add-baseline':
      return said(planAddBaseline(site, operation), ({ pages, sheet, isNew }) => `Link ${sheet}${isNew ? ', a new baseline,' : ''} first on ${onPages(pages)}`); // prettier-ignore
    case 'rename-sheet':
      return said(planRenameSheet(site, operation), ({ pages, to }) => `Rename ${operation.sheet} to ${to}, with its links on ${onPages(pages)}`); // prettier-ignore
  }
}

function said<Plan extends { readonly changes: ChangeSet }, Problem>(
  plan: Result<Plan, Problem>,
  sentence: (plan: Plan) => string,
): Result<{ readonly changes: ChangeSet; readonly sentence: string }, Problem> {
  return plan.ok ? succeed({ changes: plan.value.changes, sentence: sentence(plan.value) }) : plan;
}

const onPages = (pages: readonly string[]): string => (pages.length === 1 ? pages[0]! : `${pages.length} pages`);

export function describePlace(place: LinkPlace): string {
  switch (place.at) {
    case 'first':
      return 'before all other sources';
    case 'before-blocks':
      return 'before the embedded block';
    case 'last':
      return 'behind all other sources';
    case 'after-title':
      return 'behind the title';
    case 'head-end':
      return 'to the end of the head';
    case 'before':
      return `before ${place.sheet}`;
    case 'after':
      return `behind ${place.sheet}`;
  }
}
