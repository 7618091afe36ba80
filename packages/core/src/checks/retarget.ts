import type { ElementNode } from '../page/nodes.ts';
import type { OpenPage } from '../survey/openPage.ts';
import { fileNameOf, relativePath } from '../source/sitePath.ts';
import type { Edit } from '../source/span.ts';
import { encodePath, type Base } from '../values/urls.ts';
import type { CheckContext } from './check.ts';

/** The reference that names `path` from a base, in the way the old one was written: from the root or from the file. */
export function referenceTo(path: string, base: Base, written: string): string | undefined {
  const suffix = /[?#].*$/s.exec(written)?.[0] ?? '';
  if (/^\s*[\\/]/.test(written)) return `/${encodePath(path)}${suffix}`;
  return base.kind === 'site' ? encodePath(relativePath(base.path, path)) + suffix : undefined;
}

/** The one file that a missing path may have meant: same name, whatever its folder and case. */
export function fileMeantBy(path: string, { pathOfLowerCase, pathsOfName }: CheckContext): string | undefined {
  const sameButCase = pathOfLowerCase.get(path.toLowerCase());
  if (sameButCase !== undefined) return sameButCase;
  const named = pathsOfName.get(fileNameOf(path).toLowerCase()) ?? [];
  return named.length === 1 ? named[0] : undefined;
}

/** Replaces an attribute's value in the start tag, in the quotes it has. */
export function attributeEdit({ text }: OpenPage, element: ElementNode, name: string, value: string): Edit | undefined {
  const place = element.attributeSpans?.[name];
  if (!place) return undefined;
  const written = text.slice(place.startOffset, place.endOffset);
  const head = /^[^=]*=[\t\n\f\r ]*(["']?)/.exec(written);
  if (!head) return undefined;
  const quote = head[1]!;
  const safe = value
    .replaceAll('&', '&amp;')
    .replaceAll(quote === '' ? '"' : quote, quote === "'" ? '&#39;' : '&quot;');
  const span = { start: place.startOffset + head[0].length, end: place.endOffset - quote.length };
  return { span, text: quote === '' && /[\s"'=<>`]/.test(safe) ? `"${safe}"` : safe };
}
