import type { ProblemSentences } from '../operationType.ts';
import type { LinkedSource } from '../../page/styleSources.ts';
import type { ChangeSet, FileEdits } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import { pagesOf, type Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { openPage, type OpenPage } from '../../survey/openPage.ts';
import { linksTo } from './linkPlace.ts';

export type PagesProblem = { readonly kind: 'page-not-found'; readonly page: string };

export const pagesProblems: ProblemSentences<PagesProblem> = {
  'page-not-found': ({ page }) => `There is no page ${page} in this site.`,
};

/** The pages of an operation, opened one by one; those that cannot be edited are passed over. */
export function chosenPages(
  site: Site,
  paths: readonly string[] | undefined,
): Result<Iterable<OpenPage>, PagesProblem> {
  const unknown = paths?.find((path) => site.files.get(path)?.kind !== 'page');
  if (unknown !== undefined) return fail({ kind: 'page-not-found', page: unknown });
  const wanted = paths && new Set(paths);
  return succeed(
    (function* () {
      for (const file of pagesOf(site)) {
        const page = !wanted || wanted.has(file.path) ? openPage(file) : undefined;
        if (page) yield page;
      }
    })(),
  );
}

export type LinkedPagesProblem = PagesProblem | { readonly kind: 'not-linked-there'; readonly sheet: string };

export const linkedPagesProblems: ProblemSentences<LinkedPagesProblem> = {
  ...pagesProblems,
  'not-linked-there': ({ sheet }) => `None of these pages links ${sheet}.`,
};

export interface LinkedPagesPlan {
  readonly changes: ChangeSet;
  readonly pages: readonly string[];
}

/** Edits the links to a sheet on the chosen pages; `linked` is false when no page has one. */
export function editLinks(
  site: Site,
  sheet: string,
  paths: readonly string[] | undefined,
  edit: (page: OpenPage, links: readonly LinkedSource[]) => readonly Edit[],
): Result<LinkedPagesPlan & { readonly linked: boolean }, PagesProblem> {
  const pages = chosenPages(site, paths);
  if (!pages.ok) return pages;
  const edited: FileEdits[] = [];
  let linked = false;
  for (const page of pages.value) {
    const links = linksTo(page, sheet);
    if (links.length === 0) continue;
    linked = true;
    const edits = edit(page, links);
    if (edits.length > 0) edited.push({ path: page.path, hash: page.file.hash, edits: [...edits] });
  }
  return succeed({ changes: { created: [], edited, deleted: [] }, pages: edited.map((e) => e.path), linked });
}
