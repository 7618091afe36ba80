import type { MatchedSelector } from '../cascade/matchElement.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import type { Site } from '../source/site.ts';
import type { EmbeddedBlock } from './blockUnits.ts';
import { placeOf } from '../source/span.ts';

/** How far a rule of a shared sheet reaches: elements and pages it applies to with nothing hovered or focused. */
export interface RuleReach {
  readonly sheet: string;
  readonly selector: string;
  readonly line: number;
  readonly elements: number;
  readonly pages: number;
}

interface Counted {
  readonly sheet: string;
  readonly selector: string;
  readonly line: number;
  elements: number;
  pages: number;
  lastPage: number;
}

/** Counts, over pages, the elements that each rule of the shared sheets, and each family of embedded rules, applies to. */
export class ReachCollector {
  private readonly counted = new Map<number, Counted>();
  /** Rules of one family, whichever block they stand in, share a count. */
  private readonly families = new Map<string, Counted>();
  private readonly seen = new Set<string>();
  private pages = 0;
  private readonly site: Site;

  constructor(site: Site) {
    this.site = site;
  }

  page({ cascade, blocks }: { readonly cascade: PageCascade; readonly blocks: readonly EmbeddedBlock[] }): void {
    this.pages++;
    if (this.seen.has(cascade.rules.key)) return;
    this.seen.add(cascade.rules.key);
    /** By source, where each unit's rule starts within its block. */
    const familyAt = new Map(
      blocks.map(({ sourceIndex, source: { contents }, units }) => [
        sourceIndex,
        new Map(units.map((unit) => [unit.span.start - contents.start, unit.family])),
      ]),
    );
    for (const { compiled, source } of cascade.rules.rules) {
      if (this.counted.has(compiled.number)) continue;
      if (source.kind === 'embedded') {
        const family = familyAt.get(source.sourceIndex)?.get(compiled.rule.span.start);
        if (family !== undefined) this.counted.set(compiled.number, this.familyCount(family));
        continue;
      }
      const line = placeOf(this.site.files.get(source.path)?.text ?? '', compiled.rule.span.start).line;
      this.counted.set(compiled.number, {
        sheet: source.path,
        selector: compiled.rule.selector,
        line,
        elements: 0,
        pages: 0,
        lastPage: 0,
      });
    }
  }

  element(matched: readonly MatchedSelector[]): void {
    for (const { indexed } of matched) {
      const counted = this.counted.get(indexed.rule.compiled.number);
      if (!counted || (indexed.pseudoElement !== '' && counted.lastPage === this.pages)) continue;
      counted.elements++;
      if (counted.lastPage === this.pages) continue;
      counted.lastPage = this.pages;
      counted.pages++;
    }
  }

  private familyCount(family: string): Counted {
    let counted = this.families.get(family);
    if (!counted)
      this.families.set(
        family,
        (counted = { sheet: '', selector: family, line: 0, elements: 0, pages: 0, lastPage: 0 }),
      );
    return counted;
  }

  /** Elements that rules of a family in embedded blocks apply to, over all pages; undefined for definitions and nested rules. */
  elementsOf(family: string): number | undefined {
    return this.families.get(family)?.elements;
  }

  /** By sheet, in the order of the sheet. Rules of a sheet that no page reaches are not there. */
  rules(): readonly RuleReach[] {
    return [...this.counted.values()]
      .filter(({ sheet }) => sheet !== '')
      .map(({ sheet, selector, line, elements, pages }) => ({ sheet, selector, line, elements, pages }))
      .sort((a, b) => (a.sheet === b.sheet ? a.line - b.line : a.sheet < b.sheet ? -1 : 1));
  }
}
