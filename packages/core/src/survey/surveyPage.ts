import { attributeOf } from '../page/nodes.ts';
import { pageSyntax } from '../page/pageSyntax.ts';
import type { PageTree } from '../page/parsePage.ts';
import { presentationalParts } from '../page/presentational.ts';
import type { LinkedSource } from '../page/styleSources.ts';
import { parseDeclarations } from '../sheet/parseSheet.ts';
import type { SiteFile } from '../source/site.ts';
import type { LineIndex } from '../source/span.ts';
import { resolveReference } from '../values/urls.ts';
import type { EmbeddedBlock } from './blockUnits.ts';
import { countDeclarations, countRules } from './countRules.ts';
import type { BlockCollector } from './blockCollector.ts';
import type { OpenPage } from './openPage.ts';
import type { SheetReader } from './sheetReader.ts';
import type { PageSurvey, SourceKind, SurveySource } from './survey.ts';

/** A page whose text cannot be read: shown, carried along. */
export const opaquePage = ({ path, size, encoding = '' }: SiteFile): PageSurvey => ({
  path,
  bytes: size,
  encoding,
  mode: 'no-quirks',
  opaque: true,
  sources: [],
  sharedBytes: 0,
  localBytes: 0,
  syntax: { slashed: false, upperCase: false, quote: '"', typed: false },
  base: path,
  embeddedRules: 0,
  styleAttributes: 0,
});

/** The sources of one page in document order; its blocks are also handed to the collector. */
export function surveyPage(page: OpenPage, sheets: SheetReader, blocks: BlockCollector): PageSurvey {
  const { file, path, text, tree, lines } = page;
  const sources: SurveySource[] = [];
  page.sources.sheets.forEach((source, i) => {
    if (source.kind === 'linked') sources.push(...linkedSources(source, lines, sheets));
    else {
      const block = page.blocks.find((b) => b.sourceIndex === i)!;
      if (source.idle === undefined) sources.push(...importedByBlock(block, lines, sheets));
      sources.push(embeddedSource(block, lines));
      blocks.add(path, text, block);
    }
  });
  const attributes = styleAttributeSource(tree, lines);
  const presentational = presentationalSource(tree, lines);
  for (const one of [attributes, presentational]) if (one.count > 0) sources.push(one);
  const { slashed, upperCase, quote, typed } = pageSyntax(tree);
  const sum = (kinds: readonly SourceKind[], read: (s: SurveySource) => number): number =>
    sources.filter((s) => kinds.includes(s.kind)).reduce((total, s) => total + read(s), 0);
  return {
    path,
    bytes: file.size,
    encoding: file.encoding ?? '',
    mode: tree.mode,
    opaque: false,
    sources,
    sharedBytes: sum(['linked', 'imported'], (s) => s.bytes),
    localBytes: sum(['embedded', 'attribute', 'presentational'], (s) => s.bytes),
    syntax: { slashed, upperCase, quote, typed },
    base: page.sources.base.kind === 'site' ? page.sources.base.path : null,
    embeddedRules: sum(['embedded'], (s) => s.rules),
    styleAttributes: attributes.count,
  };
}

function linkedSources(source: LinkedSource, lines: LineIndex, sheets: SheetReader): readonly SurveySource[] {
  const line = lines.placeOf(source.span.start).line;
  const said = saysOf(source);
  const common = { media: source.media, count: 1, line, ...(said.length > 0 ? { says: said } : {}) };
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

/** What a link says beside its path and medium. */
function saysOf({ element, alternate, title, reference }: LinkedSource): readonly string[] {
  return [
    ...(alternate ? ['alternate'] : []),
    ...(title === '' ? [] : [`titled “${title}”`]),
    ...['disabled', 'integrity', 'crossorigin'].filter((name) => attributeOf(element, name) !== undefined),
    ...(/^[\t\n\f\r ]*[\\/](?![\\/])/.test(reference) ? ['from the site root'] : []),
  ];
}

/** What an embedded block imports comes before the block's own rules. */
function importedByBlock(block: EmbeddedBlock, lines: LineIndex, sheets: SheetReader): readonly SurveySource[] {
  return block.sheet.rules.flatMap((rule) => {
    if (rule.kind !== 'import') return [];
    const common = { media: rule.media, count: 1, line: lines.placeOf(rule.span.start).line };
    return sheets
      .withImports(resolveReference(rule.reference, block.base), rule.reference, 'imported')
      .map((s) => ({ ...s, ...common }));
  });
}

function embeddedSource(block: EmbeddedBlock, lines: LineIndex): SurveySource {
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
    line: lines.placeOf(block.source.span.start).line,
  };
}

function styleAttributeSource(tree: PageTree, lines: LineIndex): SurveySource {
  let count = 0;
  let declarations = 0;
  let bytes = 0;
  let line = 0;
  for (const element of tree.elements) {
    const value = attributeOf(element, 'style');
    if (value === undefined) continue;
    if (count++ === 0) line = lines.placeOf(Math.max(element.start, 0)).line;
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

function presentationalSource(tree: PageTree, lines: LineIndex): SurveySource {
  let count = 0;
  let bytes = 0;
  let line = 0;
  for (const element of tree.elements) {
    const parts = presentationalParts(element);
    if (parts.length === 0) continue;
    if (count++ === 0) line = lines.placeOf(Math.max(element.start, 0)).line;
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
