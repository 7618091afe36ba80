import { lowered } from '../source/asciiCase.ts';
import { attributeOf, type ElementNode, type ParentNode } from './nodes.ts';
import { parentElement } from './parsePage.ts';

interface Language {
  readonly said: string;
  /** Where the page's metadata says it: all that may be meant, since browsers read it in their own ways. */
  readonly perhaps: readonly string[];
}

/**
 * The language of an element, as written; undefined where neither it, nor what it lies in, nor the page's metadata tells: then the
 * server may.
 *
 * HTML Standard, "The lang and xml:lang attributes"; "Pragma directives", for `content-language`.
 */
export function languageOf(element: ElementNode): Language | undefined {
  let root = element;
  for (let at: ElementNode | undefined = element; at; at = parentElement(at)) {
    const said = ownLanguage(at);
    if (said !== undefined) return { said, perhaps: [] };
    root = at;
  }
  let known = defaults.get(root);
  if (known === undefined) defaults.set(root, (known = defaultLanguage(root) ?? null));
  return known ?? undefined;
}

const defaults = new WeakMap<ElementNode, Language | null>();

const ownLanguage = (element: ElementNode): string | undefined =>
  element.attributes.find(({ name, prefix }) => name === 'lang' && prefix === 'xml')?.value ??
  attributeOf(element, 'lang');

/** The last one that is told counts, in whatever part of the page. */
function defaultLanguage(root: ElementNode): Language | undefined {
  const contents: string[] = [];
  const open: ParentNode[] = [root];
  for (let at = open.pop(); at; at = open.pop()) {
    if (
      at.type === 'element' &&
      at.tag === 'meta' &&
      lowered(attributeOf(at, 'http-equiv') ?? '') === 'content-language'
    )
      contents.push(attributeOf(at, 'content') ?? '');
    for (const child of at.children.toReversed()) if (child.type === 'element') open.push(child);
  }
  const said = contents.at(-1);
  return said === undefined
    ? undefined
    : { said, perhaps: contents.flatMap((one) => one.split(/[\t\n\f\r ,]+/)).filter((one) => one !== '') };
}
