import { childrenOf, localNameOf, parentElementOf, queryAll, sheetsOf } from '../../../ui/pageDom.ts';

/**
 * Which elements were read whole and found equal, by all that selectors can ask of them: the sheets of their documents, and their own
 * names and attributes, those of all they lie in, and of all that stand before them. Another element of which the same can be said
 * computes the same, apart from what its layout gives it. Where a sheet asks for more (`:has()`, `:empty`, types counted from the end,
 * the size of a container) nothing is taken to be known.
 */
export class EqualChains {
  private readonly numbers = new Map<string, number>();
  private readonly equal = new Set<string>();

  /** The chains of a document's elements in a view, by element; undefined where they do not tell. */
  of(document: Document, root: string, view: string): ReadonlyMap<Element, number> | undefined {
    const sheets = sheetsTexts(document, root);
    if (sheets === undefined) return undefined;
    const start = this.number(`${document.compatMode} ${view} ${sheets}`);
    const chains = new Map<Element, number>();
    const last = new Map<Element | null, number>();
    for (const element of queryAll(document, '*')) {
      const parent = parentElementOf(element);
      const above = parent ? chains.get(parent)! : start;
      const before = last.get(parent) ?? 0;
      const siblings = parent ? childrenOf(parent).length : 1;
      const attributes = [...ownAttributes(element)].map(({ name, value }) => `${name}=${value.replaceAll(root, '')}`);
      const chain = this.number(`${above} ${before} ${siblings} ${localNameOf(element)} ${attributes.join('\n')}`);
      chains.set(element, chain);
      last.set(parent, chain);
    }
    return chains;
  }

  has = (before: number, after: number): boolean => this.equal.has(`${before} ${after}`);

  add(before: number, after: number): void {
    this.equal.add(`${before} ${after}`);
  }

  private number(text: string): number {
    let number = this.numbers.get(text);
    if (number === undefined) this.numbers.set(text, (number = this.numbers.size + 1));
    return number;
  }
}

/** A form may hide them behind a field of that name. */
const ownAttributes = (element: Element): NamedNodeMap =>
  Object.getOwnPropertyDescriptor(Element.prototype, 'attributes')!.get!.call(element) as NamedNodeMap;

const asksForMore = /:(?:has|empty|nth-last-of-type|last-of-type|only-of-type)\b|:nth-last-child\([^)]*\bof\b/;

/** What the sheets of a document say, each with its medium. */
function sheetsTexts(document: Document, root: string): string | undefined {
  const parts: string[] = [];
  for (const sheet of sheetsOf(document)) {
    if (sheet.disabled) continue;
    const text = textOfSheet(sheet);
    if (text === undefined || asksForMore.test(text) || text.includes('@container')) return undefined;
    parts.push(`${(sheet.media as MediaList | undefined)?.mediaText ?? ''}{${text.replaceAll(root, '')}}`);
  }
  return parts.join('\n');
}

const known = new WeakMap<CSSStyleSheet, string>();

function textOfSheet(sheet: CSSStyleSheet): string | undefined {
  try {
    let text = known.get(sheet);
    if (text === undefined) {
      text = [...sheet.cssRules]
        .map((rule) =>
          'styleSheet' in rule && rule.styleSheet
            ? `${rule.cssText}{${textOfSheet(rule.styleSheet as CSSStyleSheet) ?? '?'}}`
            : rule.cssText,
        )
        .join('\n');
      known.set(sheet, text);
    }
    return text.includes('{?}') ? undefined : text;
  } catch {
    // a sheet of another server cannot be read
    return undefined;
  }
}

/** CSSOM, "Resolved Values": properties whose resolved value is what layout made of them. */
export const laidOut =
  /^(?:(?:min-|max-)?(?:width|height|inline-size|block-size)|top|right|bottom|left|inset.*|margin.*|padding.*|perspective-origin|transform.*|translate|grid-template-.*|line-height|offset.*)$/;
