import type { ElementTableReply } from '@syndeton/contract';
import { childNodesOf, queryAll, viewOf } from '../../ui/pageDom.ts';

/** Elements a selector reaches; else those whose own text holds the words, innermost first. */
export function findElements(document: Document, asked: string): readonly Element[] {
  try {
    const found = queryAll(document, asked);
    if (found.length > 0) return found;
  } catch {
    // words, not a selector
  }
  const words = asked.trim().toLowerCase();
  return queryAll(document, 'body *').filter((element) =>
    [...childNodesOf(element)].some(
      (node) => node.nodeType === 3 && (node.textContent ?? '').toLowerCase().includes(words),
    ),
  );
}

const sourcesOf = (document: Document): readonly Element[] =>
  queryAll(document, 'link, style').filter(
    (element) => element.localName === 'style' || /(^|\s)stylesheet(\s|$)/i.test(element.getAttribute('rel') ?? ''),
  );

const sheetOf = (element: Element | undefined): CSSStyleSheet | null =>
  (element as HTMLLinkElement | HTMLStyleElement | undefined)?.sheet ?? null;

/**
 * Switches sources and declarations off in a page as it is shown, and those of before on again. Attributes are put back as
 * they were written.
 */
export class Peeling {
  private undo: (() => void)[] = [];

  apply(
    document: Document,
    picked: Element | null,
    table: ElementTableReply | undefined,
    peeled: readonly string[],
  ): void {
    for (const put of this.undo.reverse()) put();
    this.undo = [];
    for (const id of peeled) this.one(document, picked, table, id);
  }

  private one(document: Document, picked: Element | null, table: ElementTableReply | undefined, id: string): void {
    if (id === 'attribute') {
      this.withoutAttribute(picked, 'style');
      return;
    }
    if (id === 'presentational') {
      const names = table?.rows.flatMap((row) =>
        row.entries.filter((e) => e.source === id).map((e) => e.selector ?? ''),
      );
      for (const name of new Set(names)) this.withoutAttribute(picked, name);
      return;
    }
    const source = /^(\d+):(.*)$/s.exec(id);
    if (source) {
      const sheet = sheetOf(sourcesOf(document)[Number(source[1])]);
      const kind = table?.sources.find((one) => one.id === id)?.kind;
      const target = kind === 'imported' && sheet ? importedSheet(sheet, source[2]!) : sheet;
      if (!target || target.disabled) return;
      target.disabled = true;
      this.undo.push(() => (target.disabled = false));
      return;
    }
    this.declaration(document, picked, table, id);
  }

  private withoutAttribute(element: Element | null, name: string): void {
    const value = element?.getAttribute(name);
    if (!element || value === null || value === undefined) return;
    element.removeAttribute(name);
    this.undo.push(() => element.setAttribute(name, value));
  }

  /** A declaration of a rule is looked for by what it says; the server knows it by its place. */
  private declaration(
    document: Document,
    picked: Element | null,
    table: ElementTableReply | undefined,
    id: string,
  ): void {
    const row = table?.rows.find((one) => one.entries.some((entry) => entry.id === id));
    const entry = row?.entries.find((one) => one.id === id);
    if (!row || !entry) return;
    const property = entry.declared === '' ? row.property : entry.declared;
    const styles =
      entry.source === 'attribute'
        ? picked instanceof (viewOf(document)?.HTMLElement ?? HTMLElement)
          ? [picked.style]
          : []
        : rulesLike(sheetOf(sourcesOf(document)[Number(/^\d+/.exec(entry.source)?.[0])]), entry.rule ?? '');
    for (const style of styles) {
      const text = style.cssText;
      style.removeProperty(property);
      this.undo.push(() => (style.cssText = text));
    }
  }
}

function importedSheet(sheet: CSSStyleSheet, path: string): CSSStyleSheet | null {
  for (const rule of sheet.cssRules) {
    if (!('styleSheet' in rule)) continue;
    const imported = rule.styleSheet as CSSStyleSheet | null;
    if (!imported) continue;
    if (decodeURIComponent(imported.href ?? '').endsWith(`/${path}`)) return imported;
    const inner = importedSheet(imported, path);
    if (inner) return inner;
  }
  return null;
}

const folded = (text: string): string =>
  text
    .replace(/\s+/g, ' ')
    .replace(/\s*([,>+~])\s*/g, '$1')
    .trim()
    .toLowerCase();

function rulesLike(sheet: CSSStyleSheet | null, selector: string): readonly CSSStyleDeclaration[] {
  const out: CSSStyleDeclaration[] = [];
  const walk = (rules: CSSRuleList): void => {
    for (const rule of rules) {
      if ('selectorText' in rule && folded(rule.selectorText as string) === folded(selector))
        out.push((rule as CSSStyleRule).style);
      if ('cssRules' in rule) walk(rule.cssRules as CSSRuleList);
      if ('styleSheet' in rule && rule.styleSheet) walk((rule.styleSheet as CSSStyleSheet).cssRules);
    }
  };
  if (sheet) walk(sheet.cssRules);
  return out;
}
