import { trimmed } from '../source/space.ts';
import type { ElementNode, ParentNode } from '../page/nodes.ts';
import type { PageTree } from '../page/parsePage.ts';
import { foldedSpace, holdsSomething, isStyleSource, joinedAt, templateText } from './pairElements.ts';

/**
 * A page's markup but for style sources, comments, and `style` and `class` attributes, as one text: equal for two trees only if
 * `pairElements` pairs all their elements and finds neither a difference nor other white space.
 *
 * Every name, value and run of text is preceded by its length, so that no content can pass for structure.
 */
export function markupText({ mode, document, text: page }: PageTree): string {
  // joined at the end: a text that grows bit by bit is kept as its bits, ten times as large
  const out: string[] = [mode];
  const nodes: ParentNode[] = [document];
  const next: number[] = [0];
  let text = '';
  const flush = (parent: ParentNode): void => {
    // white space at the edges of the head's text shows nowhere
    if (parent.type === 'element' && (parent.tag === 'head' || parent.tag === 'html'))
      text = trimmed(foldedSpace(text));
    if (text !== '') out.push(`t${text.length}:${text}`);
    text = '';
  };
  while (nodes.length > 0) {
    const depth = nodes.length - 1;
    const node = nodes[depth]!;
    const child = node.children[next[depth]!++];
    if (child === undefined) {
      flush(node);
      if (node.type === 'element' && node.tag !== 'head' && node.tag !== 'html') out.push(joinsOf(node));
      if (node.type === 'element' && holdsSomething(node) === true) out.push('h');
      if (node.type === 'element' && node.tag === 'template') out.push(`i${templateText(node, page)}`);
      out.push('/');
      nodes.pop();
      next.pop();
    } else if (child.type === 'text') text += child.value;
    else if (child.type === 'element' && !isStyleSource(child)) {
      flush(node);
      out.push(elementText(child));
      nodes.push(child);
      next.push(0);
    }
  }
  return out.join('');
}

/** Where blocks or links part its text. */
function joinsOf({ children }: ElementNode): string {
  const joins = children.some((child) => child.type === 'element' && isStyleSource(child)) ? joinedAt(children) : '';
  return joins === '' ? '' : `j${joins};`;
}

function elementText({ tag, namespace, attributes }: ElementNode): string {
  let out = `e${tag.length}:${tag}${namespace}`;
  for (const { name, value, prefix = '' } of attributes)
    if (name !== 'style' && name !== 'class')
      out += `a${prefix.length},${name.length},${value.length}:${prefix}${name}${value}`;
  return out;
}
