import { pagesProblems } from './linkedPages.ts';
import { describeSheetPathProblem } from '../sheetPath.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { FileEdits } from '../../source/changeSet.ts';
import type { Site } from '../../source/site.ts';
import { parseSheetPath, type SheetPathProblem } from '../sheetPath.ts';
import { baselineText } from './baselineText.ts';
import { chosenPages, type LinkedPagesPlan, type PagesProblem } from './linkedPages.ts';
import { insertTag, linksTo, moveTag } from './linkPlace.ts';
import { linkTag } from './linkTag.ts';

/**
 * A sheet that evens out what browsers bring along, linked before all other sources. A sheet of the site, or, under a name
 * that is free, one of our own making.
 */
export interface AddBaseline {
  readonly kind: 'add-baseline';
  readonly sheet: string;
  readonly pages?: readonly string[];
}

export type BaselineProblem =
  | PagesProblem
  | { readonly kind: 'baseline-path'; readonly path: SheetPathProblem }
  | { readonly kind: 'baseline-first'; readonly sheet: string };

export interface BaselinePlan extends LinkedPagesPlan {
  readonly sheet: string;
  readonly isNew: boolean;
}

export function planAddBaseline(site: Site, { sheet, pages }: AddBaseline): Result<BaselinePlan, BaselineProblem> {
  const path = parseSheetPath(sheet, site);
  if (!path.ok) return fail({ kind: 'baseline-path', path: path.problem });
  const opened = chosenPages(site, pages);
  if (!opened.ok) return opened;
  const isNew = !site.files.has(path.value);
  const edited: FileEdits[] = [];
  for (const page of opened.value) {
    const link = linksTo(page, path.value).find((s) => s.idle === undefined);
    const tag = link ? undefined : linkTag(page, path.value, {});
    const edits = link
      ? moveTag(page, link, { at: 'first' })
      : tag === undefined
        ? []
        : [insertTag(page, tag, { at: 'first' })];
    if (edits.length > 0) edited.push({ path: page.path, hash: page.file.hash, edits });
  }
  if (edited.length === 0) return fail({ kind: 'baseline-first', sheet: path.value });
  const created = isNew ? [{ path: path.value, text: baselineText }] : [];
  return succeed({
    changes: { created, edited, deleted: [] },
    pages: edited.map((e) => e.path),
    sheet: path.value,
    isNew,
  });
}

export const addBaseline = operationType<AddBaseline, BaselineProblem>()({
  kind: 'add-baseline',
  schema: Type.Object({ kind: Type.Literal('add-baseline'), sheet: fields.sheet, pages: fields.somePages }, closed),
  plan(site, operation) {
    const plan = planAddBaseline(site, operation);
    if (!plan.ok) return plan;
    const { changes, pages, sheet, isNew } = plan.value;
    const sentence = `Link ${sheet}${isNew ? ', a new baseline,' : ''} first on ${onPages(pages)}`;
    return succeed({ changes, sentence });
  },
  problems: {
    ...pagesProblems,
    'baseline-path': ({ path }) => describeSheetPathProblem(path),
    'baseline-first': ({ sheet }) => `${sheet} stands first on all these pages already.`,
  },
});
