import { boxOf, localNameOf, ownViewOf, queryAll, queryOne, rootOf, sheetsOf, viewOf } from '../../../ui/pageDom.ts';
import { pathOfElement } from '../../../ui/elementPath.ts';
import { EqualChains, laidOut } from './EqualChains.ts';

/** Something that this browser computes otherwise in two documents. */
export interface MeasuredDifference {
  /** The element's path in the document before, with its pseudo-element. */
  readonly element: string;
  /** A property, `box`, or `element` where there is another one. */
  readonly property: string;
  readonly before: string;
  readonly after: string;
}

interface Side {
  readonly document: Document;
  /** The address its own files begin with: what is after it names the same file on both sides. */
  readonly root: string;
}

/** So many differences of a page are named; the rest is counted. */
const mostNamed = 20;

/**
 * What this browser shows otherwise: computed values and boxes of all elements, and of the pseudo-elements that sheets ask for. Links
 * and blocks are no part of it. Of elements like others that were found equal (`chains`, over pages; `view`: the width and medium) only what
 * layout makes of them is read. CSSOM, "Resolved Values"; CSSOM View, "Extensions to the Element Interface".
 */
export function compareDocuments(
  before: Side,
  after: Side,
  chains = new EqualChains(),
  view = '',
): { readonly count: number; readonly named: readonly MeasuredDifference[] } {
  const named: MeasuredDifference[] = [];
  let count = 0;
  const add = (difference: MeasuredDifference): void => {
    count++;
    if (named.length < mostNamed) named.push(difference);
  };
  const [old, now] = [before, after].map(({ document }) => shownElements(document));
  const pseudoElements = new Set([...pseudoElementsOf(before.document), ...pseudoElementsOf(after.document)]);
  const names = Array.from(viewOf(before.document)!.getComputedStyle(rootOf(before.document)!)).filter(
    (name) => !name.startsWith('--'),
  );
  const laid = names.filter((name) => laidOut.test(name));
  const [was, is] = [before, after].map(({ document, root }) => chains.of(document, root, view));
  for (let i = 0; i < Math.max(old!.length, now!.length); i++) {
    const [a, b] = [old![i], now![i]];
    if (!a || !b || (localNameOf(a) !== localNameOf(b) && !isCarrier(a, b))) {
      add({
        element: a ? pathOfElement(a) : pathOfElement(b!),
        property: 'element',
        before: a ? localNameOf(a) : 'none',
        after: b ? localNameOf(b) : 'none',
      });
      break;
    }
    const [p1, p2] = [was?.get(a), is?.get(b)];
    const isKnown = p1 !== undefined && p2 !== undefined && chains.has(p1, p2);
    const counted = count;
    const look = (pseudoElement: string | undefined, properties: readonly string[]): void => {
      const [x, y] = [styleOf(a, pseudoElement), styleOf(b, pseudoElement)];
      if (/^::(before|after)$/.test(pseudoElement ?? '') && isNone(x) && isNone(y)) return;
      for (const name of properties) {
        const [v, w] = [x.getPropertyValue(name), y.getPropertyValue(name)];
        if (v !== w && v.replaceAll(before.root, '') !== w.replaceAll(after.root, ''))
          add({ element: pathOfElement(a) + (pseudoElement ?? ''), property: name, before: v, after: w });
      }
    };
    look(undefined, isKnown ? laid : names);
    for (const one of pseudoElements) if (!isKnown) look(one, names);
    const [p, q] = [boxText(a), boxText(b)];
    if (p !== q) add({ element: pathOfElement(a), property: 'box', before: p, after: q });
    else if (p1 !== undefined && p2 !== undefined && count === counted) chains.add(p1, p2);
  }
  return { count, named };
}

/** `font` and `center` may have become `span` and `div`. */
const isCarrier = (a: Element, b: Element): boolean =>
  /^(font span|center div)$/.test(`${localNameOf(a)} ${localNameOf(b)}`);

const isStyling = (element: Element): boolean =>
  localNameOf(element) === 'style' ||
  (localNameOf(element) === 'link' && /\bstylesheet\b/i.test(element.getAttribute('rel') ?? ''));

function shownElements(document: Document): readonly Element[] {
  const head = queryOne(document, 'html > head');
  return queryAll(document, '*').filter((one) => !isStyling(one) && !(head?.contains(one) ?? false));
}

const styleOf = (element: Element, pseudoElement: string | undefined): CSSStyleDeclaration =>
  ownViewOf(element).getComputedStyle(element, pseudoElement);

/** Without content there is no `::before` and no `::after`; of others `content` says nothing. */
const isNone = (style: CSSStyleDeclaration): boolean => /^(none|normal|)$/.test(style.content);

function boxText(element: Element): string {
  const { x, y, width, height } = boxOf(element);
  return [x, y, width, height].map((value) => value.toFixed(2)).join(' ');
}

/** Those that some sheet of the document names. */
function pseudoElementsOf(document: Document): ReadonlySet<string> {
  const found = new Set<string>();
  const walk = (rules: Iterable<CSSRule>): void => {
    for (const rule of rules) {
      if ('selectorText' in rule)
        for (const [, name] of String(rule.selectorText).matchAll(
          /:{1,2}(before|after|first-line|first-letter|marker|placeholder|selection|file-selector-button|backdrop)\b/g,
        ))
          found.add(`::${name}`);
      if ('styleSheet' in rule) look((rule as CSSImportRule).styleSheet);
      if ('cssRules' in rule) walk((rule as CSSGroupingRule).cssRules);
    }
  };
  const look = (sheet: CSSStyleSheet | null): void => {
    try {
      walk(sheet?.cssRules ?? []);
    } catch {
      // a sheet of another server cannot be read
    }
  };
  for (const sheet of sheetsOf(document)) look(sheet);
  return found;
}
