import { trimmed } from '../../source/space.ts';
import { pagesProblems } from './linkedPages.ts';
import { PathStyleSchema, pathStyleProblems } from './linkTag.ts';
import { LinkPlaceSchema } from './linkPlace.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import type { ChangeSet, FileEdits } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import { insertTag, linksTo, type LinkPlace } from './linkPlace.ts';
import { isHost, linkTag, type PathStyle, type PathStyleProblem } from './linkTag.ts';
import { chosenPages, type PagesProblem } from './linkedPages.ts';

/** Links a sheet from pages that do not link it yet. */
export interface LinkSheet {
  readonly kind: 'link-sheet';
  readonly sheet: string;
  /** All pages when absent. */
  readonly pages?: readonly string[];
  readonly place: LinkPlace;
  /** A media query list; all media when absent. */
  readonly media?: string;
  readonly paths?: PathStyle;
}

export type LinkSheetProblem =
  | PagesProblem
  | PathStyleProblem
  | { readonly kind: 'sheet-not-there'; readonly sheet: string }
  | { readonly kind: 'linked-already'; readonly sheet: string }
  | { readonly kind: 'base-elsewhere'; readonly pages: readonly string[] };

export interface LinkPlan {
  readonly changes: ChangeSet;
  readonly pages: readonly string[];
}

/** A page that links the sheet for the same medium already is left; a link that browsers pass over does not count. */
export function planLinkSheet(site: Site, operation: LinkSheet): Result<LinkPlan, LinkSheetProblem> {
  const { sheet, place, media = '', paths } = operation;
  if (site.files.get(sheet)?.kind !== 'sheet') return fail({ kind: 'sheet-not-there', sheet });
  if (typeof paths === 'object' && !isHost(paths.host)) return fail({ kind: 'bad-host', host: paths.host });
  const opened = chosenPages(site, operation.pages);
  if (!opened.ok) return opened;
  const elsewhere: string[] = [];
  const edited: FileEdits[] = [];
  for (const page of opened.value) {
    const linked = linksTo(page, sheet).some((s) => s.idle === undefined && sameMedia(s.media, media));
    if (linked) continue;
    const tag = linkTag(page, sheet, { paths, media: trimmed(media) });
    if (tag === undefined) elsewhere.push(page.path);
    else edited.push({ path: page.path, hash: page.file.hash, edits: [insertTag(page, tag, place)] });
  }
  if (edited.length === 0)
    return fail(
      elsewhere.length > 0 ? { kind: 'base-elsewhere', pages: elsewhere } : { kind: 'linked-already', sheet },
    );
  return succeed({ changes: { created: [], edited, deleted: [] }, pages: edited.map((e) => e.path) });
}

const plain = (media: string): string => trimmed(media).toLowerCase().replace(/^all$/, '');

export const sameMedia = (a: string, b: string): boolean => plain(a) === plain(b);

export const linkSheet = operationType<LinkSheet, LinkSheetProblem>()({
  kind: 'link-sheet',
  schema: Type.Object(
    {
      kind: Type.Literal('link-sheet'),
      sheet: fields.sheet,
      pages: fields.somePages,
      place: LinkPlaceSchema,
      media: Type.Optional(Type.String({ maxLength: 1000 })),
      paths: Type.Optional(PathStyleSchema),
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planLinkSheet(site, operation);
    if (!plan.ok) return plan;
    const { changes, pages } = plan.value;
    const media = trimmed(operation.media ?? '');
    const sentence = `Link ${operation.sheet}${media === '' ? '' : ` for ${media}`} from ${onPages(pages)}`;
    return succeed({ changes, sentence });
  },
  problems: {
    ...pagesProblems,
    ...pathStyleProblems,
    'sheet-not-there': ({ sheet }) =>
      `There is no sheet ${sheet} in this site. Name one of its sheets, or gather rules into a new one.`,
    'linked-already': ({ sheet }) => `All these pages link ${sheet} for that medium already.`,
    'base-elsewhere': ({ pages }) =>
      `${onPages(pages)} count paths from another server, by a base element. A path with the host name is possible there.`,
  },
});
