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
}

/** Counts, over pages, the elements that each rule of the shared sheets, and each family of embedded rules, applies to. */
export class ReachCollector {
  /** By sheet and place of the rule. */
  private readonly counted = new Map<string, Counted>();
  /** Rules of one family, whichever block they stand in, share a count. */
  private readonly families = new Map<string, Counted>();

  /** Adds the counts of a page. */
  merge({ counted, families }: ReachCollector): void {
    for (const [mine, theirs] of [[this.counted, counted] as const, [this.families, families] as const])
      for (const [key, { elements, pages, ...rule }] of theirs) {
        const known = mine.get(key);
        if (!known) mine.set(key, { ...rule, elements, pages });
        else {
          known.elements += elements;
          known.pages += pages;
        }
      }
  }

  /** Elements that rules of a family in embedded blocks apply to, over all pages; undefined for definitions and nested rules. */
  elementsOf(family: string): number | undefined {
    return this.families.get(family)?.elements;
  }

  /** By sheet, in the order of the sheet. Rules of a sheet that no page reaches are not there. */
  rules(): readonly RuleReach[] {
    return [...this.counted.values()]
      .map(({ sheet, selector, line, elements, pages }) => ({ sheet, selector, line, elements, pages }))
      .sort((a, b) => (a.sheet === b.sheet ? a.line - b.line : a.sheet < b.sheet ? -1 : 1));
  }

  /** Counts the elements of one page; returns what is to be told of each of them. */
  page(
    site: Site,
    { cascade, blocks }: { readonly cascade: PageCascade; readonly blocks: readonly EmbeddedBlock[] },
  ): (matched: readonly MatchedSelector[]) => void {
    const byNumber = this.rulesOf(site, cascade, blocks);
    return (matched) => {
      for (const { indexed } of matched) {
        const counted = byNumber.get(indexed.rule.compiled.number);
        // with its pseudo-elements a rule counts once a page, and once each element
        if (!counted || (indexed.pseudoElement !== '' && counted.pages > 0)) continue;
        counted.elements++;
        counted.pages = 1;
      }
    };
  }

  private rulesOf(site: Site, cascade: PageCascade, blocks: readonly EmbeddedBlock[]): ReadonlyMap<number, Counted> {
    /** By source, where each unit's rule starts within its block. */
    const familyAt = new Map(
      blocks.map(({ sourceIndex, source: { contents }, units }) => [
        sourceIndex,
        new Map(units.map((unit) => [unit.span.start - contents.start, unit.family])),
      ]),
    );
    const byNumber = new Map<number, Counted>();
    for (const { compiled, source } of cascade.rules.rules) {
      const { start } = compiled.rule.span;
      if (byNumber.has(compiled.number)) continue;
      const isEmbedded = source.kind === 'embedded';
      const family = isEmbedded ? familyAt.get(source.sourceIndex)?.get(start) : undefined;
      if (isEmbedded && family === undefined) continue;
      const [map, key] = family === undefined ? [this.counted, `${source.path} ${start}`] : [this.families, family]; // prettier-ignore
      let counted = map.get(key);
      if (!counted) {
        const line = isEmbedded ? 0 : placeOf(site.files.get(source.path)?.text ?? '', start).line;
        const selector = family ?? compiled.rule.selector;
        map.set(key, (counted = { sheet: isEmbedded ? '' : source.path, selector, line, elements: 0, pages: 0 }));
      }
      byNumber.set(compiled.number, counted);
    }
    return byNumber;
  }
}
