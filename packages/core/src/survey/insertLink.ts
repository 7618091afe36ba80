import { printLink } from '../page/pageSyntax.ts';
import { relativePath } from '../source/sitePath.ts';
import { indentationAt } from '../source/removal.ts';
import type { Edit } from '../source/span.ts';
import type { PageReading } from './pageReading.ts';
import { encodePath } from '../values/urls.ts';

type Linkable = Pick<PageReading, 'text' | 'base' | 'sources' | 'syntax' | 'headEnd'>;

/** The edit that links a sheet from a page: before all its sources, before its first embedded block, or after all. */
export function insertLink(page: Linkable, sheet: string, place: 'first' | 'before-blocks' | 'last'): Edit | undefined {
  const { text, base, sources, syntax } = page;
  if (base.kind !== 'site') return undefined;
  const link = printLink(syntax, encodePath(relativePath(base.path, sheet)));
  const written = sources.filter((s) => s.span.start >= 0 && !(s.kind === 'embedded' && s.foreign));
  const before =
    place === 'first' ? written[0] : place === 'last' ? undefined : written.find((s) => s.kind === 'embedded');
  if (before) {
    const at = before.span.start;
    return { span: { start: at, end: at }, text: link + syntax.lineEnd + indentationAt(text, at) };
  }
  const after = written.at(-1)?.span ?? page.headEnd;
  if (!after) return undefined;
  return { span: { start: after.end, end: after.end }, text: syntax.lineEnd + indentationAt(text, after.start) + link };
}
