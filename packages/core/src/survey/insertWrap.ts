import { lineEndOf } from '../source/lineEnds.ts';
import { indentationAt } from '../source/removal.ts';
import type { Edit } from '../source/span.ts';
import type { OpenPage } from './openPage.ts';

/**
 * The edits that put a `div` with an ID or class (`#wrap`, `.main`) round the content of a page; none when the page does not write
 * both tags of its `body`.
 */
export function insertWrap({ tree, text }: Pick<OpenPage, 'tree' | 'text'>, name: string): readonly Edit[] {
  const body = tree.elements.find((e) => e.tag === 'body');
  // the parser only says where the element ends, which is after the end tag of `html`
  const endTag = /<\/body\s*>(?=(?:\s|<\/html\s*>|<!--(?:(?!-->)[^])*-->)*$)/i.exec(text);
  if (!body || body.start < 0 || !endTag) return [];
  const end = endTag.index;
  const lineEnd = lineEndOf(text);
  const indentation = indentationAt(text, body.start);
  const upper = text.startsWith('<BODY', body.start);
  const tag = upper ? 'DIV' : 'div';
  const attribute = name.startsWith('#') ? 'id' : 'class';
  const label = upper ? attribute.toUpperCase() : attribute;
  const opening = `${lineEnd}${indentation}<${tag} ${label}="${name.slice(1)}">`;
  const closing = `</${tag}>${lineEnd}${indentationAt(text, end)}`;
  return [
    { span: { start: body.startTagEnd, end: body.startTagEnd }, text: opening },
    { span: { start: end, end }, text: closing },
  ];
}
