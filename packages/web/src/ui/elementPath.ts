import { childrenOf, localNameOf, parentElementOf, queryOne } from './pageDom.ts';

/** The path of an element as the server names it: `html>body:nth-child(2)>p:nth-child(1)`. */
export function pathOfElement(element: Element): string {
  const parent = parentElementOf(element);
  const tag = localNameOf(element);
  if (!parent) return tag;
  return `${pathOfElement(parent)}>${tag}:nth-child(${[...childrenOf(parent)].indexOf(element) + 1})`;
}

export function elementAtPath(document: Document | null | undefined, path: string): Element | null {
  try {
    return path === '' || !document ? null : queryOne(document, path);
  } catch {
    return null;
  }
}
