import { idReferences } from '../../page/idNames.ts';
import { attributeOf, type ElementNode } from '../../page/nodes.ts';
import { offsetInAttribute } from '../../page/attributeText.ts';
import type { Edit } from '../../source/span.ts';
import type { OpenPage } from '../../survey/openPage.ts';
import { resolveReference } from '../../values/urls.ts';
import { nameEditsInSheet, type Renaming } from './nameEdits.ts';

/** The edits that rename in a page: its elements, what refers to them (from other pages too), its blocks and style attributes. */
export function pageNameEdits(page: OpenPage, renaming: Renaming, hasIt: (path: string) => boolean): readonly Edit[] {
  const out: Edit[] = [];
  for (const { source } of page.blocks)
    if (!source.foreign) out.push(...nameEditsInSheet(page.text, source.contents, renaming));
  for (const element of page.tree.elements) out.push(...elementEdits(page, element, renaming, hasIt));
  return out;
}

function elementEdits(
  page: OpenPage,
  element: ElementNode,
  { of, from, to }: Renaming,
  hasIt: (path: string) => boolean,
): readonly Edit[] {
  const out: Edit[] = [];
  const put = (name: string, start: number, length: number): void => {
    const edit = partEdit(page, element, name, start, length, to);
    if (edit) out.push(edit);
  };
  const words = (name: string): void => {
    for (const found of (attributeOf(element, name) ?? '').matchAll(/[^\t\n\f\r ]+/g))
      if (found[0] === from) put(name, found.index, from.length);
  };
  if (of === 'custom-property') {
    const value = attributeOf(element, 'style') ?? '';
    if (value.includes(from))
      for (const { span } of nameEditsInSheet(value, { start: 0, end: value.length }, { of, from, to }))
        put('style', span.start, span.end - span.start);
    return out;
  }
  if (of === 'class') {
    words('class');
    return out;
  }
  if (attributeOf(element, 'id') === from) put('id', 0, from.length);
  const own = hasIt(page.path);
  for (const { name, value } of element.attributes) {
    if (own && idReferences.has(name)) words(name);
    else if (name === 'href' && value.includes('#')) {
      const target = value.trim().startsWith('#')
        ? { kind: 'site', path: page.path }
        : resolveReference(value, page.sources.base);
      const at = value.indexOf('#') + 1;
      const fragment = value.slice(at);
      if (target.kind === 'site' && hasIt((target as { path: string }).path) && decoded(fragment) === from)
        put(name, at, fragment.length);
    } else if (own)
      // drawings name their parts in attributes and style attributes: fill="url(#shade)"
      for (const found of value.matchAll(/url\(\s*["']?#([^"')\s]+)["']?\s*\)/g))
        if (found[1] === from) put(name, found.index + found[0].indexOf('#') + 1, from.length);
  }
  return out;
}

function decoded(fragment: string): string {
  try {
    return decodeURIComponent(fragment);
  } catch {
    return fragment;
  }
}

/** An edit of a stretch of an attribute's value, where it stands in the tag as written. */
function partEdit(
  { text }: OpenPage,
  element: ElementNode,
  name: string,
  start: number,
  length: number,
  to: string,
): Edit | undefined {
  const place = element.attributeSpans?.[name] ?? element.attributeSpans?.[`xlink:${name}`];
  if (!place) return undefined;
  const written = text.slice(place.startOffset, place.endOffset);
  const from = place.startOffset + offsetInAttribute(written, start);
  const end = place.startOffset + offsetInAttribute(written, start + length);
  return { span: { start: from, end }, text: to };
}
