import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import type { Span } from '../source/span.ts';
import { resolveReference, siteBase, type Base, type Target } from '../values/urls.ts';
import { attributeOf, type ElementNode } from './nodes.ts';
import type { PageTree } from './parsePage.ts';
import { parentElement, textContent } from './parsePage.ts';
import { StylePolicies, type Allowed } from './stylePolicy.ts';

/** Why a `link` or `style` element gives the page no rules. */
export type Idle = 'type' | 'disabled' | 'no-reference' | 'untitled-alternate' | 'policy';

interface Placed {
  readonly element: ElementNode;
  readonly span: Span;
  readonly media: string;
  readonly title: string;
  /** What its references count from: a `base` counts for what comes after it. */
  readonly base: Base;
  /** Set when browsers take no rules from it. */
  readonly idle: Idle | undefined;
  /** Whether browsers take it hangs on where the site is served from. */
  readonly perhaps: boolean;
}

export interface LinkedSource extends Placed {
  readonly kind: 'linked';
  readonly reference: string;
  readonly target: Target;
  readonly alternate: boolean;
  readonly charset: string | undefined;
  readonly integrity: string | undefined;
}

export interface EmbeddedSource extends Placed {
  readonly kind: 'embedded';
  /** The block's text between the tags, in the page's own text. */
  readonly contents: Span;
  /** SVG's `style`: entities and CDATA are parsed there, so its text is not the page's. */
  readonly foreign: boolean;
}

/** A link or block without its element, for what outlives a page's tree. */
export type SourcePlace = Omit<LinkedSource, 'element'> | Omit<EmbeddedSource, 'element'>;

/** The links and embedded blocks of a page in tree order, and the base its references count from. */
export interface StyleSources {
  /** What references after the `base` element count from. */
  readonly base: Base;
  /** What those before it count from. */
  readonly ownBase: Base;
  readonly baseElement: ElementNode | undefined;
  /** What the page's policy says of sheets asked for by `@import`. */
  readonly imports: Allowed;
  readonly sheets: readonly (LinkedSource | EmbeddedSource)[];
  /** The title of the preferred set, or undefined when no sheet has a title. */
  readonly preferredTitle: string | undefined;
}

/** HTML Standard, "The link element", "The style element", "The base element"; CSSOM, "CSS Style Sheet Collections". */
export function styleSources(page: PageTree, path: string): StyleSources {
  const baseElement = page.elements.find(
    (e) => e.tag === 'base' && e.namespace === 'html' && attributeOf(e, 'href') !== undefined,
  );
  const ownBase = siteBase(path);
  const base = baseOf(baseElement, ownBase);
  const policies = new StylePolicies(page.elements);
  const sheets: (LinkedSource | EmbeddedSource)[] = [];
  for (const element of page.elements) {
    if (element.tag === 'style' && (element.namespace === 'html' || element.namespace === 'svg'))
      sheets.push(embeddedSource(element, baseAt({ base, ownBase, baseElement }, element), policies));
    else if (element.tag === 'link' && element.namespace === 'html') {
      const link = linkedSource(element, baseAt({ base, ownBase, baseElement }, element), policies);
      if (link) sheets.push(link);
    }
  }
  const imports = policies.imported();
  return { base, ownBase, baseElement, imports, sheets, preferredTitle: preferredTitle(page, sheets) };
}

/** What an element's references count from. */
export const baseAt = (
  { base, ownBase, baseElement }: Pick<StyleSources, 'base' | 'ownBase' | 'baseElement'>,
  element: Pick<ElementNode, 'index'>,
): Base => (baseElement !== undefined && element.index < baseElement.index ? ownBase : base);

function baseOf(element: ElementNode | undefined, own: Base): Base {
  if (!element) return own;
  const target = resolveReference(attributeOf(element, 'href') ?? '', own);
  switch (target.kind) {
    case 'site':
      return siteBase(target.path);
    case 'remote':
      // HTML Standard, "Set the frozen base URL"
      return /^javascript:/i.test(target.url) ? own : { kind: 'remote', url: target.url };
    case 'outside':
      return { kind: 'remote', url: target.reference };
    case 'data':
    case 'local':
    case 'empty':
      return own;
  }
}

function embeddedSource(element: ElementNode, base: Base, policies: StylePolicies): EmbeddedSource {
  const type = attributeOf(element, 'type');
  const wrongType = type !== undefined && type !== '' && lowered(type) !== 'text/css';
  const allowed = policies.isEmpty ? 'yes' : policies.block(element, textContent(element));
  const contentsEnd = element.endTagStart >= 0 ? element.endTagStart : element.end;
  return {
    kind: 'embedded',
    element,
    span: { start: element.start, end: element.end },
    contents: { start: element.startTagEnd, end: Math.max(contentsEnd, element.startTagEnd) },
    foreign: element.namespace !== 'html',
    media: attributeOf(element, 'media') ?? '',
    title: inDocumentTree(element) ? (attributeOf(element, 'title') ?? '') : '',
    base,
    idle: wrongType ? 'type' : allowed === 'no' ? 'policy' : undefined,
    perhaps: false,
  };
}

const inDocumentTree = (element: ElementNode): boolean => parentElement(element) !== undefined;

/** Whether a `rel` names a stylesheet. */
export const isStylesheetRel = (rel: string): boolean => relTokens(rel).includes('stylesheet');

const relTokens = (rel: string): string[] => lowered(rel).split(/[\t\n\f\r ]+/);

function linkedSource(element: ElementNode, base: Base, policies: StylePolicies): LinkedSource | undefined {
  const rel = attributeOf(element, 'rel') ?? '';
  if (!isStylesheetRel(rel)) return undefined;
  const reference = attributeOf(element, 'href') ?? '';
  const type = lowered(trimmed((attributeOf(element, 'type') ?? '').split(';')[0]!));
  const alternate = relTokens(rel).includes('alternate');
  const title = attributeOf(element, 'title') ?? '';
  let idle: Idle | undefined;
  if (trimmed(reference) === '') idle = 'no-reference';
  else if (type !== '' && type !== 'text/css') idle = 'type';
  else if (attributeOf(element, 'disabled') !== undefined) idle = 'disabled';
  else if (alternate && title === '') idle = 'untitled-alternate';
  const allowed = policies.isEmpty ? 'yes' : policies.sheet(element);
  if (idle === undefined && allowed === 'no') idle = 'policy';
  return {
    kind: 'linked',
    element,
    span: { start: element.start, end: element.end },
    reference,
    target: resolveReference(reference, base),
    alternate,
    charset: attributeOf(element, 'charset'),
    media: attributeOf(element, 'media') ?? '',
    integrity: attributeOf(element, 'integrity'),
    title,
    base,
    idle,
    perhaps: allowed === 'maybe',
  };
}

function preferredTitle(page: PageTree, sheets: readonly (LinkedSource | EmbeddedSource)[]): string | undefined {
  const titled = (s: LinkedSource | EmbeddedSource): boolean =>
    s.title !== '' && s.idle === undefined && !(s.kind === 'linked' && s.alternate);
  const first = sheets.find(titled);
  const meta = page.elements.find(
    (e) => e.tag === 'meta' && attributeOf(e, 'http-equiv')?.toLowerCase() === 'default-style',
  );
  const named = meta && attributeOf(meta, 'content');
  // a meta before the first titled sheet names the set; after it, Chromium leaves the set as it is
  const before = meta && (!first || meta.index < first.element.index);
  return before && named !== undefined && named !== '' ? named : first?.title;
}

/** A link that takes this site's sheet for every medium, whichever sheet set is chosen. */
export const linksPlainly = (source: SourcePlace, path: string): boolean =>
  source.kind === 'linked' &&
  source.idle === undefined &&
  trimmed(source.media) === '' &&
  source.title === '' &&
  source.target.kind === 'site' &&
  source.target.path === path;
