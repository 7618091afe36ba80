import type { CompiledDeclaration } from '../cascade/compiledRule.ts';
import { desktop } from '../cascade/environment.ts';
import { CascadeSession, type PageCascade } from '../cascade/pageCascade.ts';
import { PageOutcomes } from '../cascade/pageOutcomes.ts';
import type { AppliedRule } from '../cascade/pageRules.ts';
import { attributeOf, type ElementNode } from '../page/nodes.ts';
import { presentationalParts } from '../page/presentational.ts';
import { parseDeclarations } from '../sheet/parseSheet.ts';
import type { Declaration } from '../sheet/sheet.ts';
import type { Site } from '../source/site.ts';
import { placeOf, type Span } from '../source/span.ts';
import { comparableValue } from '../values/comparableValue.ts';
import type { EmbeddedBlock } from './blockUnits.ts';
import { openPage, type OpenPage } from './openPage.ts';
import { SheetReader } from './sheetReader.ts';
import type { SourceKind } from './survey.ts';

/** A rule, or a set of equal style attributes, as it counts on one page. */
export interface BandRule {
  readonly label: string;
  readonly declarations: readonly { readonly property: string; readonly value: string; readonly important: boolean }[];
  /** The line in its own file. */
  readonly line: number;
  /** Where it stands in this page's text; several for equal attributes; none for a rule of a sheet. */
  readonly spans: readonly Span[];
  /** Elements of the page it applies to with nothing hovered or focused. */
  readonly elements: number;
  /** Of those, the ones where another declaration beats one of its own. */
  readonly loses: number;
  /** The family it belongs to, for a rule of an embedded block. */
  readonly family: string | undefined;
}

/** One source of a page with the rules it brings: a sheet, a block, all style attributes, all presentational attributes. */
export interface PageBand {
  readonly kind: SourceKind;
  /** The sheet's path, or the reference when it cannot be read; empty for what stands in the page. */
  readonly name: string;
  readonly problem: string | undefined;
  readonly media: string;
  /** What to light in the page's text: the tag of a link or import, the whole of a block. */
  readonly span: Span | undefined;
  readonly line: number;
  readonly endLine: number;
  readonly bytes: number;
  readonly rules: readonly BandRule[];
}

export interface PageBands {
  readonly path: string;
  readonly text: string;
  readonly bands: readonly PageBand[];
}

/** One page opened: its sources in document order, and what each does there. Undefined when there is no such page to read. */
export function pageBands(site: Site, path: string): PageBands | undefined {
  const file = site.files.get(path);
  const page = file?.kind === 'page' ? openPage(file) : undefined;
  return file && page
    ? new BandReader(site, page, new CascadeSession().openTree(site, file, page.tree)).read()
    : undefined;
}

interface Count {
  elements: number;
  loses: number;
}

class BandReader {
  private readonly counts = new Map<CompiledDeclaration, Count>();
  private readonly site: Site;
  private readonly page: OpenPage;
  private readonly cascade: PageCascade;
  private readonly sheets: SheetReader;
  private readonly blocks: ReadonlyMap<number, EmbeddedBlock>;
  /** By the number of the source they come through. */
  private readonly applied = new Map<number, AppliedRule[]>();

  constructor(site: Site, page: OpenPage, cascade: PageCascade) {
    this.site = site;
    this.page = page;
    this.cascade = cascade;
    this.sheets = new SheetReader(site);
    this.blocks = new Map(page.blocks.map((block) => [block.sourceIndex, block]));
    for (const rule of cascade.rules.rules) {
      const list = this.applied.get(rule.source.sourceIndex);
      if (list) list.push(rule);
      else this.applied.set(rule.source.sourceIndex, [rule]);
    }
  }

  read(): PageBands {
    this.count();
    const { path, text, sources } = this.page;
    const bands = sources.sheets.flatMap((_, index) => this.sourceBands(index));
    const local = [this.attributes(), this.presentational()].filter((band) => band.rules.length > 0);
    return { path, text, bands: [...bands, ...local] };
  }

  /** A rule counts once an element, under the first of its declarations. */
  private count(): void {
    const outcomes = new PageOutcomes(this.cascade, { environment: desktop });
    for (const element of this.page.tree.elements) {
      const matched = this.cascade.matchedAtRest(element);
      const pseudoElements = new Set(matched.map((m) => m.indexed.pseudoElement));
      const winners = new Map([...pseudoElements].map((name) => [name, outcomes.winnersOf(element, name)]));
      for (const { indexed } of matched) {
        const { declarations } = indexed.rule.compiled.block;
        const first = declarations[0];
        if (!first) continue;
        const count = this.counts.get(first) ?? { elements: 0, loses: 0 };
        this.counts.set(first, count);
        count.elements++;
        const won = winners.get(indexed.pseudoElement)!;
        const beaten = declarations.some((own) =>
          own.longhands.some((name) => won.has(name) && !declarations.includes(won.get(name)!.compiled)),
        );
        if (beaten) count.loses++;
      }
    }
  }

  /** The sheets a source imports come before it. */
  private sourceBands(index: number): readonly PageBand[] {
    const { sources, lines } = this.page;
    const { blocks } = this;
    const source = sources.sheets[index]!;
    const { span, media } = source;
    const place = { line: lines.placeOf(span.start).line, endLine: lines.placeOf(Math.max(span.end - 1, 0)).line };
    const applied = this.applied.get(index) ?? [];
    const paths = [...new Set(applied.map((r) => r.source.path))];
    const bands: PageBand[] = [];
    for (const path of paths) {
      if (path === this.page.path) continue;
      const rules = applied.filter((r) => r.source.path === path);
      const kind = rules[0]!.source.kind === 'linked' ? 'linked' : 'imported';
      const text = this.site.files.get(path)?.text ?? '';
      const seen = new Set<unknown>();
      const banded = rules.flatMap(({ compiled }) => {
        if (seen.has(compiled.rule)) return [];
        seen.add(compiled.rule);
        return [
          this.rule(
            compiled.rule.selector,
            compiled.block.declarations,
            placeOf(text, compiled.rule.span.start).line,
            [],
            undefined,
          ),
        ];
      });
      bands.push({
        kind,
        name: path,
        problem: undefined,
        media,
        span,
        ...place,
        bytes: this.sheets.read(path)?.bytes ?? 0,
        rules: banded,
      });
    }
    if (source.kind === 'linked' && !paths.some((path) => path !== this.page.path))
      bands.push({
        kind: 'linked',
        name: source.reference,
        problem: source.idle ?? this.whyEmpty(source.target),
        media,
        span,
        ...place,
        bytes: 0,
        rules: [],
      });
    if (source.kind !== 'embedded') return bands;
    const block = blocks.get(index)!;
    const { start, end } = source.contents;
    const own = new Map(
      applied.flatMap(({ source: { kind }, compiled }) =>
        kind === 'embedded' ? [[start + compiled.rule.span.start, compiled] as const] : [],
      ),
    );
    const rules = block.units.map((unit) => {
      const compiled = own.get(unit.span.start);
      const line = lines.placeOf(unit.span.start).line;
      return this.rule(
        unit.label,
        compiled?.block.declarations ?? [],
        line,
        [unit.span],
        unit.family,
        unit.declarations,
      );
    });
    return [
      ...bands,
      { kind: 'embedded', name: '', problem: source.idle, media, span, ...place, bytes: end - start, rules },
    ];
  }

  private whyEmpty(target: { readonly kind: string; readonly path?: string }): string | undefined {
    if (target.kind !== 'site') return 'remote';
    return this.site.files.has(target.path!) ? undefined : 'missing';
  }

  private rule(
    label: string,
    compiled: readonly CompiledDeclaration[],
    line: number,
    spans: readonly Span[],
    family: string | undefined,
    written: readonly Declaration[] = compiled.map((c) => c.declaration),
  ): BandRule {
    const count = compiled[0] ? this.counts.get(compiled[0]) : undefined;
    const declarations = written.map(({ property, value, important }) => ({ property, value, important }));
    return { label, declarations, line, spans, elements: count?.elements ?? 0, loses: count?.loses ?? 0, family };
  }

  private attributes(): PageBand {
    const groups = new Map<string, { tags: Set<string>; value: string; elements: ElementNode[] }>();
    for (const element of this.page.tree.elements) {
      const value = attributeOf(element, 'style');
      if (value === undefined) continue;
      const key = parseDeclarations(value)
        .map((d) => `${d.property}:${comparableValue(d.property, d.value)}${d.important ? '!' : ''}`)
        .join(';');
      const group = groups.get(key) ?? { tags: new Set(), value, elements: [] };
      groups.set(key, group);
      group.tags.add(element.tag);
      group.elements.push(element);
    }
    const rules = [...groups.values()].map(({ tags, value, elements }) =>
      this.gathered([...tags].join(', '), parseDeclarations(value), elements, () => ['style']),
    );
    return this.summed('attribute', rules);
  }

  private presentational(): PageBand {
    const groups = new Map<string, { parts: Set<string>; elements: ElementNode[] }>();
    for (const element of this.page.tree.elements) {
      const parts = presentationalParts(element);
      if (parts.length === 0) continue;
      const group = groups.get(element.tag) ?? { parts: new Set(), elements: [] };
      groups.set(element.tag, group);
      for (const part of parts) group.parts.add(part);
      group.elements.push(element);
    }
    const rules = [...groups].map(([tag, { parts, elements }]) => {
      const declared = [...parts].map((property) => ({ property, value: '', important: false }));
      return this.gathered(tag, declared, elements, (element) => presentationalParts(element));
    });
    return this.summed('presentational', rules);
  }

  private gathered(
    label: string,
    declarations: BandRule['declarations'],
    elements: readonly ElementNode[],
    names: (element: ElementNode) => readonly string[],
  ): BandRule {
    const spans = elements.flatMap((element) =>
      names(element).flatMap((name) => {
        const place = element.attributeSpans?.[name];
        return place ? [{ start: place.startOffset, end: place.endOffset }] : [];
      }),
    );
    const line = this.page.lines.placeOf(Math.max(elements[0]!.start, 0)).line;
    const written = declarations.map(({ property, value, important }) => ({ property, value, important }));
    return { label, declarations: written, line, spans, elements: elements.length, loses: 0, family: undefined };
  }

  private summed(kind: SourceKind, rules: readonly BandRule[]): PageBand {
    const sorted = [...rules].sort((a, b) => b.elements - a.elements);
    const spans = rules.flatMap((rule) => rule.spans);
    const bytes = spans.reduce((sum, s) => sum + s.end - s.start, 0);
    const lines = rules.map((rule) => rule.line);
    return {
      kind,
      name: '',
      problem: undefined,
      media: '',
      span: undefined,
      line: Math.min(...lines),
      endLine: Math.max(...lines),
      bytes,
      rules: sorted,
    };
  }
}
