import { trimmed } from '../../source/space.ts';
import { pagesProblems } from './linkedPages.ts';
import { closed, fields, operationType, type ProblemSentences } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { readingOf } from '../../survey/pageReading.ts';
import { insertLink } from '../../survey/insertLink.ts';
import type { ChangeSet } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import { pagesOf, type Site } from '../../source/site.ts';
import { folderOf } from '../../source/sitePath.ts';
import type { Edit } from '../../source/span.ts';
import { openPage, type OpenPage } from '../../survey/openPage.ts';

/** Links from these pages the sheets that the other pages beside them link. */
export interface LinkAlike {
  readonly kind: 'link-alike';
  readonly pages: readonly string[];
}

export type LinkAlikeProblem =
  | { readonly kind: 'page-not-found'; readonly page: string }
  | { readonly kind: 'linked-alike' };

/** A page and the sheets it lacks, in the order the others have them. */
export interface LackingPage {
  readonly page: string;
  readonly sheets: readonly string[];
}

/**
 * What each of the pages lacks against the pages beside it: those of its folder, when there are two or more, else all others.
 * A sheet counts when more than half of them link it.
 */
export function lackingLinks(site: Site, pages: readonly string[]): readonly LackingPage[] {
  const given = new Set(pages);
  const linkedBy = new Map<string, readonly string[]>();
  for (const file of pagesOf(site)) {
    const page = openPage(file);
    if (page) linkedBy.set(file.path, sheetsOf(page, site));
  }
  const others = [...linkedBy.keys()].filter((path) => !given.has(path));
  return pages.flatMap((page) => {
    const own = linkedBy.get(page);
    if (!own) return [];
    const beside = others.filter((path) => folderOf(path) === folderOf(page));
    const sheets = commonSheets((beside.length >= 2 ? beside : others).map((path) => linkedBy.get(path)!)).filter(
      (sheet) => !own.includes(sheet),
    );
    return sheets.length === 0 ? [] : [{ page, sheets }];
  });
}

export function planLinkAlike(
  site: Site,
  { pages }: LinkAlike,
): Result<{ changes: ChangeSet; sentence: string }, LinkAlikeProblem> {
  const unknown = pages.find((page) => site.files.get(page)?.kind !== 'page');
  if (unknown !== undefined) return fail({ kind: 'page-not-found', page: unknown });
  const lacking = lackingLinks(site, pages);
  if (lacking.length === 0) return fail({ kind: 'linked-alike' });
  const edited = lacking.map(({ page, sheets }) => {
    const file = site.files.get(page)!;
    const opened = openPage(file)!;
    const edits = sheets.flatMap((sheet): Edit[] => {
      const edit = insertLink(readingOf(opened.file, opened.tree)!, sheet, 'before-blocks');
      return edit ? [edit] : [];
    });
    return { path: page, hash: file.hash, edits };
  });
  const sheets = [...new Set(lacking.flatMap((one) => one.sheets))];
  const from = lacking.length === 1 ? lacking[0]!.page : `${lacking.length} pages`;
  return succeed({
    changes: { created: [], edited, deleted: [] },
    sentence: `Link ${sheets.join(' and ')} from ${from}, as the others do`,
  });
}

export const linkAlikeProblems: ProblemSentences<LinkAlikeProblem> = {
  ...pagesProblems,
  'linked-alike': () => 'These pages link all the sheets that the pages beside them link.',
};

const sheetsOf = ({ sources }: OpenPage, site: Site): readonly string[] =>
  sources.sheets.flatMap((s) =>
    s.kind === 'linked' &&
    s.idle === undefined &&
    s.title === '' &&
    trimmed(s.media) === '' &&
    s.target.kind === 'site' &&
    site.files.has(s.target.path)
      ? [s.target.path]
      : [],
  );

/** Sheets that more than half of the pages link, in the order most of them have. */
function commonSheets(pages: readonly (readonly string[])[]): readonly string[] {
  const places = new Map<string, number[]>();
  for (const sheets of pages) sheets.forEach((sheet, i) => places.set(sheet, [...(places.get(sheet) ?? []), i]));
  const mean = (list: readonly number[]): number => list.reduce((sum, n) => sum + n, 0) / list.length;
  return [...places]
    .filter(([, list]) => list.length * 2 > pages.length)
    .sort((a, b) => mean(a[1]) - mean(b[1]))
    .map(([sheet]) => sheet);
}

export const linkAlike = operationType<LinkAlike, LinkAlikeProblem>()({
  kind: 'link-alike',
  schema: Type.Object({ kind: Type.Literal('link-alike'), pages: fields.pages }, closed),
  plan: planLinkAlike,
  problems: linkAlikeProblems,
});
