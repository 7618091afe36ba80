import { count } from '../../checks/words.ts';
import { closed, fields, operationType, type ProblemSentences } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import type { ChangeSet } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import { insertWrap } from '../../survey/insertWrap.ts';
import { openPage } from '../../survey/openPage.ts';
import { isPlainClassName } from '../gather/className.ts';

/** Puts an element round the content of pages, for rules that ask for a container the pages lack. They may look different. */
export interface WrapContent {
  readonly kind: 'wrap-content';
  readonly pages: readonly string[];
  /** `#wrap` for an ID, `.main` for a class. */
  readonly name: string;
}

export type WrapProblem =
  | { readonly kind: 'wrap-name'; readonly name: string }
  | { readonly kind: 'no-page-to-wrap'; readonly page: string }
  | { readonly kind: 'wrapped-already'; readonly page: string; readonly name: string }
  | { readonly kind: 'no-body-tags'; readonly page: string };

export function planWrapContent(site: Site, { pages, name }: WrapContent): Result<ChangeSet, WrapProblem> {
  if (!/^[#.]/.test(name) || !isPlainClassName(name.slice(1))) return fail({ kind: 'wrap-name', name });
  const edited = [];
  for (const path of pages) {
    const file = site.files.get(path);
    const page = file?.kind === 'page' ? openPage(file) : undefined;
    if (!file || !page) return fail({ kind: 'no-page-to-wrap', page: path });
    if (name.startsWith('#') && page.tree.elements.some((e) => e.id === name.slice(1)))
      return fail({ kind: 'wrapped-already', page: path, name });
    const edits = insertWrap(page, name);
    if (edits.length === 0) return fail({ kind: 'no-body-tags', page: path });
    edited.push({ path, hash: file.hash, edits });
  }
  return succeed({ created: [], edited, deleted: [] });
}

export const wrapProblems: ProblemSentences<WrapProblem> = {
  'wrap-name': (problem) =>
    `${problem.name} names no element. #wrap for an ID and .main for a class are allowed: letters, digits, hyphens and underscores, a letter first.`,
  'no-page-to-wrap': (problem) => `There is no page ${problem.page} that can be edited in this site.`,
  'wrapped-already': (problem) =>
    `${problem.page} has an element with the ID ${problem.name.slice(1)} already; an ID stands once on a page.`,
  'no-body-tags': (problem) =>
    `${problem.page} does not write both tags of its body, so nothing can be put round its content.`,
};

export const wrapContent = operationType<WrapContent, WrapProblem>()({
  kind: 'wrap-content',
  schema: Type.Object(
    {
      kind: Type.Literal('wrap-content'),
      pages: fields.pages,
      name: Type.String({ minLength: 2, maxLength: 100 }),
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planWrapContent(site, operation);
    const { pages, name } = operation;
    return plan.ok
      ? succeed({ changes: plan.value, sentence: `Put ${name} round the content of ${count(pages.length, 'page')}` })
      : plan;
  },
  problems: wrapProblems,
});
