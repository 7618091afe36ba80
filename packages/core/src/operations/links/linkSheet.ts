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
    const tag = linkTag(page, sheet, { paths, media: media.trim() });
    if (tag === undefined) elsewhere.push(page.path);
    else edited.push({ path: page.path, hash: page.file.hash, edits: [insertTag(page, tag, place)] });
  }
  if (edited.length === 0)
    return fail(
      elsewhere.length > 0 ? { kind: 'base-elsewhere', pages: elsewhere } : { kind: 'linked-already', sheet },
    );
  return succeed({ changes: { created: [], edited, deleted: [] }, pages: edited.map((e) => e.path) });
}

const plain = (media: string): string => media.trim().toLowerCase().replace(/^all$/, '');

export const sameMedia = (a: string, b: string): boolean => plain(a) === plain(b);
