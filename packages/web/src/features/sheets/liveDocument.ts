import { parentElementOf, queryAll, sheetsOf } from '../../ui/pageDom.ts';

/** The sheet of that path as a document loaded it, by a link or an import; also where it is loaded more than once. */
export function sheetsAt(document: Document, path: string): readonly CSSStyleSheet[] {
  const out: CSSStyleSheet[] = [];
  const look = (sheet: CSSStyleSheet | null | undefined): void => {
    if (!sheet) return;
    if (sheet.href !== null && decodeURIComponent(new URL(sheet.href).pathname).endsWith(`/draft/${path}`))
      out.push(sheet);
    for (const rule of rulesOf(sheet)) if ('styleSheet' in rule) look(rule.styleSheet as CSSStyleSheet | null);
  };
  for (const sheet of sheetsOf(document)) look(sheet);
  return out;
}

function rulesOf(sheet: CSSStyleSheet): readonly CSSRule[] {
  try {
    return [...sheet.cssRules];
  } catch {
    // a sheet of another server cannot be read
    return [];
  }
}

/** Puts these rules in the place of all a sheet has. What this browser refuses is left out, as it would be from a file. */
export function replaceRules(sheet: CSSStyleSheet, rules: readonly string[]): void {
  while (sheet.cssRules.length > 0) sheet.deleteRule(0);
  for (const rule of rules)
    try {
      sheet.insertRule(rule, sheet.cssRules.length);
    } catch {
      // dropped
    }
}

/** Elements that a selector reaches; none where this browser refuses it. */
export function reached(document: Document, selector: string): readonly Element[] {
  try {
    return queryAll(document, selector);
  } catch {
    return [];
  }
}

export interface TextLook {
  readonly color: string;
  readonly ground: string;
  readonly text: string;
}

/** How the text of an element looks, and what it stands on: the first background up the tree that is not see-through. */
export function textLook(element: Element): TextLook | undefined {
  const view = element.ownerDocument.defaultView;
  if (!view) return undefined;
  const text = (element.textContent ?? '').replace(/\s+/g, ' ').trim().slice(0, 40);
  for (let at: Element | null = element; at; at = parentElementOf(at)) {
    const { backgroundColor, backgroundImage } = view.getComputedStyle(at);
    if (backgroundImage !== 'none') return undefined;
    if (!/rgba\(.*, 0\)|transparent/.test(backgroundColor))
      return { color: view.getComputedStyle(element).color, ground: backgroundColor, text };
  }
  return { color: view.getComputedStyle(element).color, ground: 'rgb(255, 255, 255)', text };
}
