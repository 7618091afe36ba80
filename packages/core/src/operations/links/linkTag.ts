import { Type } from '@sinclair/typebox';
import { closed, type ProblemSentences } from '../operationType.ts';
import { pageSyntax, printLink } from '../../page/pageSyntax.ts';
import { relativePath } from '../../source/sitePath.ts';
import type { OpenPage } from '../../survey/openPage.ts';
import { encodePath } from '../../values/urls.ts';

/** How a link names its sheet: from the page, from the site root, or with the host in front. */
export type PathStyle = 'page' | 'root' | { readonly host: string };

export const PathStyleSchema = Type.Union([
  Type.Literal('page'),
  Type.Literal('root'),
  Type.Object({ host: Type.String({ maxLength: 400 }) }, closed),
]);

export type PathStyleProblem = { readonly kind: 'bad-host'; readonly host: string };

export const pathStyleProblems: ProblemSentences<PathStyleProblem> = {
  'bad-host': ({ host }) =>
    `${host} is no address a path can start with. It begins with https:// or http:// and a host: https://www.example.org.`,
};

/** An address a page can be given: `https://host` with or without a folder. */
export const isHost = (host: string): boolean => /^https?:\/\/[^\s/"'<>?#]+(?:\/[^\s"'<>?#]*)?$/i.test(host);

/**
 * The reference that leads from the page to the sheet, percent-encoded; undefined where the page's `base` counts paths from
 * another server. URL Standard, "URL parsing".
 */
export function sheetReference({ sources }: OpenPage, sheet: string, style: PathStyle): string | undefined {
  if (typeof style === 'object') return `${style.host.replace(/\/+$/, '')}/${encodePath(sheet)}`;
  if (sources.base.kind !== 'site') return undefined;
  return style === 'root' ? `/${encodePath(sheet)}` : encodePath(relativePath(sources.base.path, sheet));
}

/** The exact tag a page gets, in its own quotes, case and closing. */
export function linkTag(
  page: OpenPage,
  sheet: string,
  { paths = 'page', media = '' }: { readonly paths?: PathStyle | undefined; readonly media?: string | undefined },
): string | undefined {
  const reference = sheetReference(page, sheet, paths);
  return reference === undefined ? undefined : printLink(pageSyntax(page.tree), reference, { media, title: '' });
}
