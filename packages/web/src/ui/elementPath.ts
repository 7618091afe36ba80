/** The path of an element as the server names it: `html>body:nth-child(2)>p:nth-child(1)`. */
export function pathOfElement(element: Element): string {
  const parent = element.parentElement;
  const tag = element.localName;
  if (!parent) return tag;
  return `${pathOfElement(parent)}>${tag}:nth-child(${[...parent.children].indexOf(element) + 1})`;
}

export function elementAtPath(document: Document | null | undefined, path: string): Element | null {
  try {
    return path === '' ? null : (document?.querySelector(path) ?? null);
  } catch {
    return null;
  }
}
