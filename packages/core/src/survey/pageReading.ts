import { lowered } from '../source/asciiCase.ts';
import { pageSyntax, type PageSyntax } from '../page/pageSyntax.ts';
import { spansOf, type ElementNode } from '../page/nodes.ts';
import { parseFile, type PageTree } from '../page/parsePage.ts';
import { styleSources, type EmbeddedSource, type LinkedSource, type SourcePlace } from '../page/styleSources.ts';
import { scriptOutline, type ScriptOutline } from '../scripts/pageScripts.ts';
import type { GroupRule } from '../sheet/sheet.ts';
import type { SiteFile } from '../source/site.ts';
import { textOf, type Span } from '../source/span.ts';
import { resolveReference, type Base, type Target } from '../values/urls.ts';
import { embeddedBlocks, type BlockUnit, type EmbeddedBlock, type StayReason } from './blockUnits.ts';
import { elementNames } from './elementNames.ts';
import type { NameSet } from './nameSet.ts';
import { ruleBody, type RuleBody } from './ruleBody.ts';
import { skeletonOf } from './skeleton.ts';

/** A conditional group in a block. */
export interface ReadGroup {
  readonly span: Span;
  /** Nothing but rules is in it. */
  readonly bare: boolean;
}

/** A rule of a block: what it says, and where it stands in the page. */
export interface ReadUnit {
  readonly rule: RuleBody;
  readonly span: Span;
  /** From the first comment that belongs to it. */
  readonly lead: number;
  readonly comments: readonly string[];
  readonly closed: boolean;
  readonly parent: ReadGroup | undefined;
}

export interface ReadBlock {
  readonly sourceIndex: number;
  readonly source: Omit<EmbeddedSource, 'element'>;
  readonly units: readonly ReadUnit[];
  readonly base: Base;
  readonly stays: StayReason | undefined;
  readonly trailingComments: readonly Span[];
  /** What its `@import` rules ask for. */
  readonly imports: readonly Target[];
  /** Nothing is left of it once its rules and comments are gone. */
  readonly bare: boolean;
}

/** What gathering needs to know of a page, without its tree: small enough to be kept for every page of a site. */
export interface PageReading {
  readonly file: SiteFile;
  readonly path: string;
  readonly text: string;
  readonly base: Base;
  readonly sources: readonly SourcePlace[];
  readonly blocks: readonly ReadBlock[];
  readonly syntax: PageSyntax;
  /** Types, classes and IDs of its elements, in lower case, and perhaps some it does not have: `p`, `.notice`, `#form`. */
  readonly names: NameSet;
  /** IDs, in lower case, that more than one of its elements has. */
  readonly repeatedIds: ReadonlySet<string>;
  /** The last element of the head that a link may follow where the page has no source, or the head's own tag. */
  readonly headEnd: Span | undefined;
  /** Undefined where the page has no script. */
  readonly scripts: ScriptOutline | undefined;
  readonly body: ReadTag | undefined;
  readonly root: ReadTag | undefined;
}

/** The tag of the `body` or the root element, and the names it has. */
export type ReadTag = Pick<ElementNode, 'start' | 'startTagEnd' | 'attributeSpans' | 'classes' | 'id'>;

const readings = new WeakMap<SiteFile, PageReading>();

/** Kept as long as the file is; undefined for a page that does not encode back to its own bytes. `tree`: where it was parsed already. */
export function readingOf(file: SiteFile, tree?: PageTree): PageReading | undefined {
  if (file.text === undefined) return undefined;
  let known = readings.get(file);
  if (!known) readings.set(file, (known = read(file, file.text, tree ?? parseFile(file))));
  return known;
}

export const hasReading = (file: SiteFile): boolean => readings.has(file);

/** What is known of a file before it was ever read, from the page it was made of. */
export const rememberReading = (reading: PageReading): void => void readings.set(reading.file, reading);

function read(file: SiteFile, text: string, tree: PageTree): PageReading {
  const sources = styleSources(tree, file.path);
  const places = sources.sheets.map(withoutElement);
  skeletonOf(file, tree);
  const body = tree.elements.find((e) => e.tag === 'body');
  const root = tree.elements.find((e) => e.tag === 'html');
  return {
    file,
    path: file.path,
    text,
    base: sources.base,
    sources: places,
    blocks: embeddedBlocks(tree, file.path, sources).map((block) => readBlock(block, places, text)),
    syntax: pageSyntax(tree),
    names: elementNames(file, tree),
    repeatedIds: repeatedIds(tree.elements),
    headEnd: headEnd(tree),
    scripts: scriptOutline(tree, sources),
    body: body && readTag(body),
    root: root && readTag(root),
  };
}

const readTag = (element: ElementNode): ReadTag => {
  const { start, startTagEnd, classes, id } = element;
  return { start, startTagEnd, attributeSpans: spansOf(element, ['class']), classes, id };
};

function withoutElement(source: LinkedSource | EmbeddedSource): SourcePlace {
  const { element: _, ...place } = source;
  return place;
}

function readBlock(block: EmbeddedBlock, places: readonly SourcePlace[], text: string): ReadBlock {
  const { sourceIndex, units, base, stays, trailingComments } = block;
  const groups = new Map<GroupRule, ReadGroup>();
  const groupOf = (rule: GroupRule | undefined): ReadGroup | undefined => {
    if (!rule) return undefined;
    let group = groups.get(rule);
    if (!group) groups.set(rule, (group = { span: rule.span, bare: rule.declarations.length === 0 }));
    return group;
  };
  return {
    sourceIndex,
    source: places[sourceIndex] as ReadBlock['source'],
    units: units.map((unit) => readUnit(unit, groupOf(unit.parent), base, text)),
    base,
    stays,
    trailingComments,
    imports: block.sheet.rules.flatMap((rule) =>
      rule.kind === 'import' ? [resolveReference(rule.reference, base)] : [],
    ),
    bare: isBare(block, text),
  };
}

const noComments: readonly string[] = [];

function readUnit(unit: BlockUnit, parent: ReadGroup | undefined, base: Base, text: string): ReadUnit {
  const { span, lead, comments, closed } = unit;
  const rule = ruleBody(unit, textOf(text, span), base);
  return { rule, span, lead, comments: comments.length === 0 ? noComments : comments, closed, parent };
}

/** Nothing but rules, comments, white space and the `<!-- -->` of old pages. */
function isBare(block: EmbeddedBlock, text: string): boolean {
  const { start, end } = block.source.contents;
  const spans = [
    ...block.sheet.rules.filter((r) => r.kind !== 'dropped' && r.kind !== 'statement').map((r) => r.span),
    ...block.sheet.comments,
  ].sort((a, b) => a.start - b.start);
  let rest = '';
  let at = start;
  for (const span of spans) {
    if (span.start > at) rest += ` ${text.slice(at, span.start)}`;
    at = Math.max(at, span.end);
  }
  return /^([\t\n\f\r ]|<!--|-->|@charset "[^"]*";)*$/.test(`${rest} ${text.slice(at, end)}`);
}

const none: ReadonlySet<string> = new Set();

function repeatedIds(elements: readonly ElementNode[]): ReadonlySet<string> {
  const seen = new Set<string>();
  const repeated = new Set<string>();
  for (const { id } of elements) {
    const name = id === undefined ? undefined : lowered(id);
    if (name === undefined) continue;
    if (seen.has(name)) repeated.add(name);
    seen.add(name);
  }
  return repeated.size === 0 ? none : repeated;
}

/** What follows the last element written in the head stays after it. */
function headEnd(tree: PageTree): Span | undefined {
  const head = tree.elements.find((e) => e.tag === 'head');
  const inside = head?.children.filter((c) => c.type === 'element' && c.start >= 0 && c.end > c.start) ?? [];
  const last = inside.findLast((c) => c.type === 'element' && (c.tag === 'title' || c.tag === 'meta'));
  if (last?.type === 'element') return { start: last.start, end: last.end };
  return head && head.start >= 0 ? { start: head.start, end: head.startTagEnd } : undefined;
}
