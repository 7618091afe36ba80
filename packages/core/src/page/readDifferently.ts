import type { ElementNode } from './nodes.ts';
import type { PageTree } from './parsePage.ts';

/**
 * The `select` elements that hold tags other than options: HTML Standard, "Parsing HTML documents", keeps these since 2025, before
 * that parsers left them out, as ours does.
 */
export const readDifferently = ({ elements, text }: PageTree): readonly ElementNode[] =>
  elements.filter(
    ({ tag, namespace, startTagEnd, end }) =>
      tag === 'select' && namespace === 'html' && startTagEnd >= 0 && otherTag.test(text.slice(startTagEnd, end)),
  );

const otherTag = /<\/?(?!(?:option|optgroup|hr|select|script|template)\b)[a-z]/i;
