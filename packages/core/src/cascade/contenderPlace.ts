import { offsetInAttribute } from '../page/attributeText.ts';
import type { ElementNode } from '../page/nodes.ts';
import type { Contender } from './contenders.ts';
import type { PageCascade } from './pageCascade.ts';

/** Where a declaration is written: the file, and the offset in its text; for a hint, its attribute. */
export interface WrittenAt {
  readonly path: string;
  readonly offset: number;
}

export function placeOfContender(contender: Contender, page: PageCascade, element: ElementNode): WrittenAt {
  const { source, hint, compiled } = contender;
  if (source) return { path: source.path, offset: source.offset + compiled.declaration.span.start };
  const holder = hint?.of ?? element;
  const span = holder.attributeSpans?.[hint?.attribute ?? 'style'];
  if (!span) return { path: page.path, offset: Math.max(holder.start, 0) };
  if (hint) return { path: page.path, offset: span.startOffset };
  const written = page.tree.text.slice(span.startOffset, span.endOffset);
  return { path: page.path, offset: span.startOffset + offsetInAttribute(written, compiled.declaration.span.start) };
}
