import type { SurveyReply } from '@syndeton/contract';
import { encodePath, folderOf, printLink, relativePath, type PathStyle } from '@syndeton/core';
import { count } from '../../ui/format.ts';

/** Pages that get the very same tag. */
export interface TagGroup {
  readonly tag: string;
  readonly words: string;
  readonly pages: readonly string[];
}

/** The exact tag each page gets, pages with equal ones together, most pages first. */
export function tagGroups(
  pages: readonly SurveyReply['pages'][number][],
  sheet: string,
  style: PathStyle,
  media: string,
): readonly TagGroup[] {
  const groups = new Map<string, { pages: string[]; slashed: boolean }>();
  for (const { path, syntax, base } of pages) {
    const reference = referenceFor(sheet, base, style);
    if (reference === undefined) continue;
    const tag = printLink({ ...syntax, lineEnd: '\n' }, reference, { media, title: '' });
    const group = groups.get(tag);
    if (group) group.pages.push(path);
    else groups.set(tag, { pages: [path], slashed: syntax.slashed });
  }
  return [...groups]
    .map(([tag, group]) => ({ tag, words: wordsFor(group.pages, group.slashed), pages: group.pages }))
    .sort((a, b) => b.pages.length - a.pages.length);
}

function referenceFor(sheet: string, base: string | null, style: PathStyle): string | undefined {
  if (typeof style === 'object') return `${style.host.replace(/\/+$/, '')}/${encodePath(sheet)}`;
  if (base === null) return undefined;
  return style === 'root' ? `/${encodePath(sheet)}` : encodePath(relativePath(base, sheet));
}

const depths = ['at the root', 'one folder down', 'two folders down', 'three folders down'];

function wordsFor(pages: readonly string[], slashed: boolean): string {
  const depth = new Set(pages.map((page) => folderOf(page).split('/').length - 1));
  const where = depth.size === 1 ? ` ${depths[[...depth][0]!] ?? 'deeper down'}` : '';
  return `${count(pages.length, 'page')}${where}${slashed ? ', XHTML' : ''}`;
}
