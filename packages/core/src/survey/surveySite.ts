import { attributeOf } from '../page/nodes.ts';
import { parsePage, type PageTree } from '../page/parsePage.ts';
import { presentationalParts } from '../page/presentational.ts';
import { styleSources, type Idle, type LinkedSource } from '../page/styleSources.ts';
import { parseDeclarations, parseSheet } from '../sheet/parseSheet.ts';
import type { Rule, Sheet } from '../sheet/sheet.ts';
import { pagesOf, sheetsOf, type Site, type SiteFile } from '../source/site.ts';
import { placeOf } from '../source/span.ts';
import { resolveReference, siteBase, type Target } from '../values/urls.ts';
import { embeddedBlocks, type EmbeddedBlock, type StayReason } from './blockUnits.ts';

export type SourceKind = 'linked' | 'imported' | 'embedded' | 'attribute' | 'presentational';

/** One place declarations come from on a page. Bytes are of the text that carries the styling. */
export interface SurveySource {
  readonly kind: SourceKind;
  /** The sheet's path for a linked or imported one; the reference as written when it cannot be read. */
  readonly target: string | undefined;
  /** Why nothing is read from it. */
  readonly problem: 'missing' | 'remote' | 'wrong-case' | Idle | undefined;
  readonly media: string;
  readonly rules: number;
  readonly declarations: number;
  readonly bytes: number;
  /** Elements carrying it, for attributes; 1 for the others. */
  readonly count: number;
  readonly line: number;
}

export interface PageSurvey {
  readonly path: string;
  readonly bytes: number;
  readonly encoding: string;
  readonly mode: PageTree['mode'];
  readonly opaque: boolean;
  /** In document order; style attributes and presentational attributes stand last, summed. */
  readonly sources: readonly SurveySource[];
  readonly sharedBytes: number;
  readonly localBytes: number;
  readonly embeddedRules: number;
  readonly styleAttributes: number;
}

export interface SheetSurvey {
  readonly path: string;
  readonly bytes: number;
  readonly rules: number;
  /** Pages that link or import it. */
  readonly pages: readonly string[];
}

/** A set of rules pasted into several pages. Versions are told apart by meaning; most common first. */
export interface RepeatedBlock {
  readonly selectors: readonly string[];
  readonly versions: readonly { readonly pages: readonly string[] }[];
  readonly pages: readonly string[];
  readonly bytes: number;
}

export interface Survey {
  readonly pages: readonly PageSurvey[];
  readonly sheets: readonly SheetSurvey[];
  readonly repeatedBlocks: readonly RepeatedBlock[];
  readonly otherFiles: number;
  /** Bytes of embedded blocks that are a second or later copy of the same text. */
  readonly repeatedBytes: number;
}

/** The inventory of sources over all pages. */
export function surveySite(site: Site, onPage?: (done: number, total: number) => void): Survey {
  const files = pagesOf(site);
  const sheets = new SheetReader(site);
  const blocks = new BlockCollector();
  const pages = files.map((file, i) => {
    const survey = surveyPage(file, sheets, blocks);
    onPage?.(i + 1, files.length);
    return survey;
  });
  return {
    pages,
    sheets: sheetsOf(site).map((file) => ({
      path: file.path,
      bytes: file.bytes.length,
      rules: sheets.read(file.path)?.rules ?? 0,
      pages: pages
        .filter((p) => p.sources.some((s) => s.target === file.path && s.problem === undefined))
        .map((p) => p.path),
    })),
    repeatedBlocks: blocks.repeated(),
    otherFiles: [...site.files.values()].filter((file) => file.kind === 'other').length,
    repeatedBytes: blocks.repeatedBytes(),
  };
}

function surveyPage(file: SiteFile, sheets: SheetReader, blocks: BlockCollector): PageSurvey {
  const { path, encoding = '' } = file;
  if (file.text === undefined) {
    return { path, bytes: file.bytes.length, encoding, mode: 'no-quirks', opaque: true, sources: [], sharedBytes: 0, localBytes: 0, embeddedRules: 0, styleAttributes: 0 }; // prettier-ignore
  }
  const tree = parsePage(file.text);
  const found = styleSources(tree, path);
  const embedded = embeddedBlocks(tree, path, found);
  const sources: SurveySource[] = [];
  found.sheets.forEach((source, i) => {
    if (source.kind === 'linked') sources.push(...linkedSources(source, file.text!, sheets));
    else {
      const block = embedded.find((b) => b.sourceIndex === i)!;
      if (source.idle === undefined) sources.push(...importedByBlock(block, file.text!, sheets));
      sources.push(embeddedSource(block, file.text!));
      blocks.add(path, file.text!, block);
    }
  });
  const attributes = styleAttributeSource(tree);
  const presentational = presentationalSource(tree);
  for (const one of [attributes, presentational]) if (one.count > 0) sources.push(one);
  const sum = (kinds: readonly SourceKind[], read: (s: SurveySource) => number): number =>
    sources.filter((s) => kinds.includes(s.kind)).reduce((total, s) => total + read(s), 0);
  return {
    path,
    bytes: file.bytes.length,
    encoding,
    mode: tree.mode,
    opaque: false,
    sources,
    sharedBytes: sum(['linked', 'imported'], (s) => s.bytes),
    localBytes: sum(['embedded', 'attribute', 'presentational'], (s) => s.bytes),
    embeddedRules: sum(['embedded'], (s) => s.rules),
    styleAttributes: attributes.count,
  };
}

function linkedSources(source: LinkedSource, text: string, sheets: SheetReader): readonly SurveySource[] {
  const line = placeOf(text, source.span.start).line;
  const common = { media: source.media, count: 1, line };
  if (source.idle !== undefined)
    return [
      {
        kind: 'linked',
        target: source.reference,
        problem: source.idle,
        rules: 0,
        declarations: 0,
        bytes: 0,
        ...common,
      },
    ];
  return sheets.withImports(source.target, source.reference, 'linked').map((s) => ({ ...s, ...common }));
}

/** What an embedded block imports comes before the block's own rules. */
function importedByBlock(block: EmbeddedBlock, text: string, sheets: SheetReader): readonly SurveySource[] {
  return block.sheet.rules.flatMap((rule) => {
    if (rule.kind !== 'import') return [];
    const common = { media: rule.media, count: 1, line: placeOf(text, rule.span.start).line };
    return sheets
      .withImports(resolveReference(rule.reference, block.base), rule.reference, 'imported')
      .map((s) => ({ ...s, ...common }));
  });
}

function embeddedSource(block: EmbeddedBlock, text: string): SurveySource {
  const { contents } = block.source;
  return {
    kind: 'embedded',
    target: undefined,
    problem: block.source.idle,
    media: block.source.media,
    rules: countRules(block.sheet.rules),
    declarations: countDeclarations(block.sheet.rules),
    bytes: contents.end - contents.start,
    count: 1,
    line: placeOf(text, block.source.span.start).line,
  };
}

function styleAttributeSource(tree: PageTree): SurveySource {
  let count = 0;
  let declarations = 0;
  let bytes = 0;
  let line = 0;
  for (const element of tree.elements) {
    const value = attributeOf(element, 'style');
    if (value === undefined) continue;
    if (count++ === 0) line = placeOf(tree.text, Math.max(element.start, 0)).line;
    declarations += parseDeclarations(value).length;
    const span = element.attributeSpans?.['style'];
    bytes += span ? span.endOffset - span.startOffset : value.length;
  }
  return {
    kind: 'attribute',
    target: undefined,
    problem: undefined,
    media: '',
    rules: 0,
    declarations,
    bytes,
    count,
    line,
  };
}

function presentationalSource(tree: PageTree): SurveySource {
  let count = 0;
  let bytes = 0;
  let line = 0;
  for (const element of tree.elements) {
    const parts = presentationalParts(element);
    if (parts.length === 0) continue;
    if (count++ === 0) line = placeOf(tree.text, Math.max(element.start, 0)).line;
    for (const part of parts) {
      const span = element.attributeSpans?.[part];
      bytes += span ? span.endOffset - span.startOffset : part.length;
    }
  }
  return {
    kind: 'presentational',
    target: undefined,
    problem: undefined,
    media: '',
    rules: 0,
    declarations: count,
    bytes,
    count,
    line,
  };
}

/** Style rules in a list, those in groups and nested ones included. */
export function countRules(rules: readonly Rule[]): number {
  let count = 0;
  for (const rule of rules) {
    if (rule.kind === 'style') count += 1 + countRules(rule.nested);
    else if (rule.kind === 'group') count += countRules(rule.rules);
    else if (rule.kind === 'definition') count++;
  }
  return count;
}

function countDeclarations(rules: readonly Rule[]): number {
  let count = 0;
  for (const rule of rules) {
    if (rule.kind === 'style') count += rule.declarations.length + countDeclarations(rule.nested);
    else if (rule.kind === 'declarations') count += rule.declarations.length;
    else if (rule.kind === 'group') count += countDeclarations(rule.rules);
  }
  return count;
}

type ReadSource = Pick<SurveySource, 'kind' | 'target' | 'problem' | 'rules' | 'declarations' | 'bytes'>;

class SheetReader {
  private readonly known = new Map<string, { sheet: Sheet; rules: number; declarations: number; bytes: number }>();
  private readonly site: Site;
  private readonly lowerCase: ReadonlyMap<string, string>;

  constructor(site: Site) {
    this.site = site;
    this.lowerCase = new Map([...site.files.keys()].map((path) => [path.toLowerCase(), path]));
  }

  read(path: string): { sheet: Sheet; rules: number; declarations: number; bytes: number } | undefined {
    const file = this.site.files.get(path);
    if (!file || file.kind !== 'sheet') return undefined;
    let known = this.known.get(path);
    if (!known) {
      const sheet = parseSheet(file.text ?? '');
      known = {
        sheet,
        rules: countRules(sheet.rules),
        declarations: countDeclarations(sheet.rules),
        bytes: file.bytes.length,
      };
      this.known.set(path, known);
    }
    return known;
  }

  /** A sheet and all it imports, in order of appearance: imports first. */
  withImports(
    target: Target,
    reference: string,
    kind: 'linked' | 'imported',
    chain: readonly string[] = [],
  ): readonly ReadSource[] {
    const path = target.kind === 'site' ? target.path : undefined;
    const read = path === undefined ? undefined : this.read(path);
    if (!read || path === undefined) {
      const problem = path === undefined ? 'remote' : this.lowerCase.has(path.toLowerCase()) ? 'wrong-case' : 'missing';
      return [{ kind, target: reference, problem, rules: 0, declarations: 0, bytes: 0 }];
    }
    const out: ReadSource[] = [];
    for (const rule of read.sheet.rules) {
      if (rule.kind !== 'import' || chain.includes(path)) continue;
      out.push(
        ...this.withImports(resolveReference(rule.reference, siteBase(path)), rule.reference, 'imported', [
          ...chain,
          path,
        ]),
      );
    }
    out.push({
      kind,
      target: path,
      problem: undefined,
      rules: read.rules,
      declarations: read.declarations,
      bytes: read.bytes,
    });
    return out;
  }
}

class BlockCollector {
  private readonly groups = new Map<
    string,
    { selectors: readonly string[]; versions: Map<string, string[]>; bytes: number }
  >();
  private readonly texts = new Map<string, { count: number; bytes: number }>();

  add(path: string, text: string, block: EmbeddedBlock): void {
    const { start, end } = block.source.contents;
    const contents = text.slice(start, end).replace(/\s+/g, ' ').trim();
    const copies = this.texts.get(contents) ?? { count: 0, bytes: end - start };
    copies.count++;
    this.texts.set(contents, copies);
    if (block.units.length === 0) return;
    const selectors = block.units.map((unit) => unit.family);
    const key = selectors.join('\n');
    let group = this.groups.get(key);
    if (!group) this.groups.set(key, (group = { selectors, versions: new Map(), bytes: end - start }));
    const version = block.units.map((unit) => unit.version).join('\n');
    const pages = group.versions.get(version);
    if (pages) pages.push(path);
    else group.versions.set(version, [path]);
  }

  repeated(): readonly RepeatedBlock[] {
    return [...this.groups.values()]
      .map(({ selectors, versions, bytes }) => {
        const sorted = [...versions.values()].sort((a, b) => b.length - a.length).map((pages) => ({ pages }));
        return { selectors, versions: sorted, pages: [...new Set(sorted.flatMap((v) => v.pages))], bytes };
      })
      .filter((block) => block.pages.length > 1)
      .sort((a, b) => b.pages.length * b.bytes - a.pages.length * a.bytes);
  }

  repeatedBytes(): number {
    let total = 0;
    for (const { count, bytes } of this.texts.values()) total += (count - 1) * bytes;
    return total;
  }
}

export type { StayReason };
