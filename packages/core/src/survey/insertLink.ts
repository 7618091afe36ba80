import { pageSyntax, printLink } from '../page/pageSyntax.ts';
import { relativePath } from '../source/sitePath.ts';
import { indentationAt } from '../source/removal.ts';
import type { Edit } from '../source/span.ts';
import type { OpenPage } from './openPage.ts';
import { encodePath } from '../values/urls.ts';

/** The edit that links a sheet from a page: before all its sources, before its first embedded block, or after all. */
export function insertLink(page: OpenPage, sheet: string, place: 'first' | 'before-blocks' | 'last'): Edit | undefined {
  const { text, tree, sources } = page;
  if (sources.base.kind !== 'site') return undefined;
  const syntax = pageSyntax(tree);
  const link = printLink(syntax, encodePath(relativePath(sources.base.path, sheet)));
  const written = sources.sheets.filter((s) => s.span.start >= 0 && !(s.kind === 'embedded' && s.foreign));
  const before =
    place === 'first' ? written[0] : place === 'last' ? undefined : written.find((s) => s.kind === 'embedded');
  if (before) {
    const at = before.span.start;
    return { span: { start: at, end: at }, text: link + syntax.lineEnd + indentationAt(text, at) };
  }
  const after = written.at(-1)?.span ?? lastOfHead(page);
  if (!after) return undefined;
  return { span: { start: after.end, end: after.end }, text: syntax.lineEnd + indentationAt(text, after.start) + link };
}

/** The last element written in the head: what follows stays after it. */
function lastOfHead({ tree }: OpenPage): { start: number; end: number } | undefined {
  const head = tree.elements.find((e) => e.tag === 'head');
  const inside = head?.children.filter((c) => c.type === 'element' && c.start >= 0 && c.end > c.start) ?? [];
  const last = inside.findLast((c) => c.type === 'element' && (c.tag === 'title' || c.tag === 'meta'));
  if (last?.type === 'element') return { start: last.start, end: last.end };
  return head && head.start >= 0 ? { start: head.start, end: head.startTagEnd } : undefined;
}
