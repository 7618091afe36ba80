import type { CDPSession } from '@playwright/test';
import { flowOf, longhandsForAll, longhandsOf, slotOf, propertyName, unescapeCss } from '@syndeton/core';

/** What the browser's protocol says decides a longhand: where the declaration is written, or from which attribute it comes. */
export interface BrowserWinner {
  readonly source: 'rule' | 'attribute' | 'hint';
  /** `css/site.css:12:4` for a rule; for attributes the declaration's text. */
  readonly at: string;
}

interface Property {
  readonly name: string;
  readonly value: string;
  readonly important?: boolean;
  readonly parsedOk?: boolean;
  readonly disabled?: boolean;
  readonly range?: { readonly startLine: number; readonly startColumn: number };
}

interface Rule {
  readonly styleSheetId?: string;
  readonly origin: string;
  readonly layers?: readonly { readonly text: string }[];
  readonly style: { readonly cssProperties: readonly Property[] };
}

interface MatchedStyles {
  readonly inlineStyle?: { readonly cssProperties: readonly Property[] };
  readonly attributesStyle?: { readonly cssProperties: readonly Property[] };
  readonly matchedCSSRules?: readonly { readonly rule: Rule }[];
  readonly pseudoElements?: readonly {
    readonly pseudoType: string;
    readonly matches: readonly { readonly rule: Rule }[];
  }[];
}

export interface SheetHeader {
  readonly styleSheetId: string;
  readonly sourceURL: string;
  readonly isInline: boolean;
  readonly startLine: number;
  readonly startColumn: number;
}

/** The page's path, and how text runs on the element. */
interface PageFlow {
  readonly page: string;
  readonly writingMode: string;
  readonly direction: string;
}

interface Candidate {
  readonly property: Property;
  readonly source: BrowserWinner['source'];
  readonly sheet: string | undefined;
  /** Number of the layer among the element's rules, weakest first; the style attribute above all. */
  readonly layer: number;
}

/** Keys are `::before longhand`, or ` longhand` for the element itself. */
export async function browserWinners(
  session: CDPSession,
  nodeId: number,
  sheets: ReadonlyMap<string, SheetHeader>,
  flow: PageFlow,
): Promise<ReadonlyMap<string, BrowserWinner>> {
  const found = (await session.send('CSS.getMatchedStylesForNode', { nodeId })) as MatchedStyles;
  const out = new Map<string, BrowserWinner>();
  const own: Candidate[] = [];
  for (const property of found.attributesStyle?.cssProperties ?? [])
    own.push({ property, source: 'hint', sheet: undefined, layer: -1 });
  own.push(...candidatesOf(found.matchedCSSRules ?? []));
  for (const property of found.inlineStyle?.cssProperties ?? [])
    if (property.range) own.push({ property, source: 'attribute', sheet: undefined, layer: Infinity });
  addWinners(out, '', own, sheets, flow);
  for (const { pseudoType, matches } of found.pseudoElements ?? [])
    addWinners(out, `::${pseudoType}`, candidatesOf(matches), sheets, flow);
  return out;
}

function candidatesOf(matches: readonly { readonly rule: Rule }[]): Candidate[] {
  const layers: string[] = [];
  return matches
    .filter(({ rule }) => rule.origin === 'regular')
    .flatMap(({ rule }) => {
      const name = (rule.layers ?? []).map((l) => l.text).join('.');
      if (layers.at(-1) !== name) layers.push(name);
      const layer = layers.length;
      return rule.style.cssProperties
        .filter((property) => property.range)
        .map((property): Candidate => ({ property, source: 'rule', sheet: rule.styleSheetId, layer }));
    });
}

function addWinners(
  out: Map<string, BrowserWinner>,
  pseudoElement: string,
  candidates: readonly Candidate[],
  sheets: ReadonlyMap<string, SheetHeader>,
  flowAndPage: PageFlow,
): void {
  const flow = flowOf(flowAndPage.writingMode, flowAndPage.direction);
  const kept = candidates.filter(({ property }) => property.parsedOk !== false && property.disabled !== true);
  const normal = kept.filter((c) => !c.property.important);
  const important = kept.filter((c) => c.property.important);
  // CSS Cascading and Inheritance 5, "Layer Ordering": among important declarations the order of layers is reversed
  important.sort((a, b) => (a.layer === Infinity || b.layer === Infinity ? 0 : b.layer - a.layer));
  const slots = new Map<string, Candidate>();
  const names = new Set<string>();
  for (const candidate of [...normal, ...important]) {
    const name = propertyName(unescapeCss(candidate.property.name));
    if (name.startsWith('--')) continue;
    for (const longhand of name === 'all' ? longhandsForAll : longhandsOf(name)) {
      names.add(longhand);
      slots.set(slotOf(longhand, flow), candidate);
    }
  }
  for (const name of names)
    out.set(`${pseudoElement} ${name}`, winnerOf(slots.get(slotOf(name, flow))!, sheets, flowAndPage.page));
}

function winnerOf(
  { property, source, sheet }: Candidate,
  sheets: ReadonlyMap<string, SheetHeader>,
  page: string,
): BrowserWinner {
  if (source !== 'rule') return { source, at: source === 'hint' ? '' : propertyName(unescapeCss(property.name)) };
  const header = sheets.get(sheet ?? '');
  if (!header || !property.range) return { source, at: 'no place' };
  const { startLine, startColumn } = property.range;
  // an embedded block's address is the page's base, which need not be the page
  const file = header.isInline ? page : decodeURIComponent(new URL(header.sourceURL).pathname.slice(1));
  const line = startLine + (header.isInline ? header.startLine : 0) + 1;
  const column = startColumn + (header.isInline && startLine === 0 ? header.startColumn : 0) + 1;
  return { source, at: `${file}:${line}:${column}` };
}
