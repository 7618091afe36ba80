import { tableOf } from '../source/tableOf.ts';
import type { ElementNode } from './nodes.ts';

/**
 * Attributes that carry styling in markup, by the elements they count on ('*' for any).
 *
 * HTML Standard, "Rendering": the presentational hints, and "Non-conforming features".
 */
const hintAttributes: Readonly<Record<string, readonly string[]>> = tableOf({
  align: ['*'],
  alink: ['body'],
  background: ['body', 'table', 'thead', 'tbody', 'tfoot', 'tr', 'td', 'th'],
  bgcolor: ['body', 'table', 'thead', 'tbody', 'tfoot', 'tr', 'td', 'th', 'marquee'],
  border: ['table', 'img', 'object', 'input'],
  bordercolor: ['table', 'tr', 'td', 'th'],
  bottommargin: ['body'],
  cellpadding: ['table'],
  cellspacing: ['table'],
  clear: ['br'],
  color: ['font', 'basefont', 'hr'],
  face: ['font', 'basefont'],
  frame: ['table'],
  height: ['td', 'th', 'tr', 'table', 'tbody', 'thead', 'tfoot', 'marquee', 'hr'],
  hspace: ['img', 'object', 'embed', 'iframe', 'input', 'marquee', 'table'],
  leftmargin: ['body'],
  link: ['body'],
  marginheight: ['body', 'iframe', 'frame'],
  marginwidth: ['body', 'iframe', 'frame'],
  noshade: ['hr'],
  nowrap: ['td', 'th'],
  rightmargin: ['body'],
  rules: ['table'],
  size: ['font', 'basefont', 'hr'],
  text: ['body'],
  topmargin: ['body'],
  valign: ['td', 'th', 'tr', 'thead', 'tbody', 'tfoot', 'col', 'colgroup'],
  vlink: ['body'],
  vspace: ['img', 'object', 'embed', 'iframe', 'input', 'marquee', 'table'],
  width: ['td', 'th', 'table', 'col', 'colgroup', 'hr', 'pre', 'marquee'],
});

/** Elements that exist only to style what is in them. */
const presentationalElements = new Set([
  'basefont',
  'big',
  'center',
  'font',
  'strike',
  'tt',
  'marquee',
  'blink',
  'nobr',
]);

/** The presentational attributes an element carries, by name; a purely presentational element counts with its tag name. */
export function presentationalParts(element: ElementNode): readonly string[] {
  if (element.namespace !== 'html') return [];
  const parts: string[] = [];
  if (presentationalElements.has(element.tag)) parts.push(`<${element.tag}>`);
  for (const { name } of element.attributes) {
    const on = hintAttributes[name];
    if (on && (on[0] === '*' || on.includes(element.tag))) parts.push(name);
  }
  return parts;
}

/**
 * Attributes that do nothing but declare something for their own element, so that a rule can say it instead. Others of a table
 * reach its cells, those of `body` its links.
 */
export const replaceableHints: ReadonlySet<string> = new Set([
  'align',
  'background',
  'bgcolor',
  'cellspacing',
  'clear',
  'color',
  'face',
  'height',
  'hspace',
  'nowrap',
  'size',
  'text',
  'valign',
  'vspace',
  'width',
]);
