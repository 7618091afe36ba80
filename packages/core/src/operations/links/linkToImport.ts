import { trimmed } from '../../source/space.ts';
import { linkedPagesProblems } from './linkedPages.ts';
import { closed, fields, onPages, operationType } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { lineEndOf } from '../../source/lineEnds.ts';
import { indentationAt } from '../../source/removal.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import type { Edit } from '../../source/span.ts';
import { pageSyntax } from '../../page/pageSyntax.ts';
import type { LinkedSource } from '../../page/styleSources.ts';
import type { OpenPage } from '../../survey/openPage.ts';
import { editLinks, type LinkedPagesPlan, type LinkedPagesProblem } from './linkedPages.ts';

/** Links to a sheet become blocks that import it, in the same place: the way back from `import-to-link`. */
export interface LinkToImport {
  readonly kind: 'link-to-import';
  readonly sheet: string;
  readonly pages?: readonly string[];
}

export type LinkToImportProblem = LinkedPagesProblem | { readonly kind: 'no-plain-link'; readonly sheet: string };

/** A titled, alternate or idle link has no import that says the same; it stays. */
export function planLinkToImport(
  site: Site,
  { sheet, pages }: LinkToImport,
): Result<LinkedPagesPlan, LinkToImportProblem> {
  const plan = editLinks(site, sheet, pages, (page, links) => links.flatMap((link) => importFor(page, link)));
  if (!plan.ok) return plan;
  if (!plan.value.linked) return fail({ kind: 'not-linked-there', sheet });
  return plan.value.pages.length === 0 ? fail({ kind: 'no-plain-link', sheet }) : plan;
}

function importFor(page: OpenPage, link: LinkedSource): readonly Edit[] {
  if (link.idle !== undefined || link.title !== '' || link.charset !== undefined) return [];
  const { text, tree } = page;
  const syntax = pageSyntax(tree);
  const name = (word: string): string => (syntax.upperCase ? word.toUpperCase() : word);
  const type = syntax.typed ? ` ${name('type')}=${syntax.quote}text/css${syntax.quote}` : '';
  const reference = trimmed(link.reference).replace(/["\\\n]/g, (c) => `\\${c}`);
  const media = trimmed(link.media) === '' ? '' : ` ${trimmed(link.media)}`;
  const lineEnd = lineEndOf(text) + indentationAt(text, link.span.start);
  const style = `<${name('style')}${type}>${lineEnd}@import "${reference}"${media};${lineEnd}</${name('style')}>`;
  return [{ span: link.span, text: style }];
}

export const linkToImport = operationType<LinkToImport, LinkToImportProblem>()({
  kind: 'link-to-import',
  schema: Type.Object({ kind: Type.Literal('link-to-import'), sheet: fields.sheet, pages: fields.somePages }, closed),
  plan(site, operation) {
    const plan = planLinkToImport(site, operation);
    if (!plan.ok) return plan;
    const { changes, pages } = plan.value;
    const sentence = `Turn the link to ${operation.sheet} into an import on ${onPages(pages)}`;
    return succeed({ changes, sentence });
  },
  problems: {
    ...linkedPagesProblems,
    'no-plain-link': ({ sheet }) =>
      `The links to ${sheet} have a title, a charset or a type that an import cannot say.`,
  },
});
