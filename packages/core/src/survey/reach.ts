import type { MatchedSelector } from '../cascade/matchElement.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import type { Site } from '../source/site.ts';
import type { EmbeddedBlock } from './blockUnits.ts';
import { placeOf } from '../source/span.ts';
import type { SheetCache } from '../cascade/sheetCache.ts';
import type { SheetMoves } from './sheetMoves.ts';

/** How far a rule of a shared sheet reaches: elements and pages it applies to with nothing hovered or focused. */
export interface RuleReach {
  readonly sheet: string;
  readonly selector: string;
  readonly line: number;
  readonly elements: number;
  readonly pages: number;
}

/** A rule or a family that is counted, the same for all pages. */
interface CountedRule {
  readonly sheet: string;
  /** Where it starts in the sheet. */
  readonly start: number;
  readonly selector: string;
  readonly line: number;
}

/** Rules by sheet and place, families by name, and the lists of them that pages with equal rules share. */
export type RuleTable = Map<string, CountedRule>;

interface Count {
  elements: number;
  pages: number;
}

/** Counts, over pages, the elements that each rule of the shared sheets, and each family of embedded rules, applies to. */
export class ReachCollector {
  /** Rules that pages have, also those that no element has. */
  private readonly known = new Set<CountedRule>();
  private readonly counts = new Map<CountedRule, Count>();
  private readonly table: RuleTable;

  constructor(table: RuleTable) {
    this.table = table;
  }

  /** Adds the counts of a page. */
  merge({ known, counts }: ReachCollector): void {
    for (const rule of known) this.known.add(rule);
    for (const [rule, { elements, pages }] of counts) {
      const mine = this.countOf(rule);
      mine.elements += elements;
      mine.pages += pages;
    }
  }

  /** Elements that rules of a family in embedded blocks apply to, over all pages; undefined for definitions and nested rules. */
  elementsOf(family: string): number | undefined {
    const rule = this.table.get(`family ${family}`);
    return rule && this.known.has(rule) ? (this.counts.get(rule)?.elements ?? 0) : undefined;
  }

  /** By sheet, in the order of the sheet. Rules of a sheet that no page reaches are not there. */
  rules(): readonly RuleReach[] {
    return [...this.known]
      .filter(({ sheet }) => sheet !== '')
      .map((rule) => {
        const { sheet, selector, line } = rule;
        return { sheet, selector, line, elements: 0, pages: 0, ...this.counts.get(rule) };
      })
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
        const rule = byNumber.get(indexed.rule.compiled.number);
        if (!rule) continue;
        const count = this.countOf(rule);
        // a pseudo-element is counted only while no element is
        if (indexed.pseudoElement !== '' && count.pages > 0) continue;
        count.elements++;
        count.pages = 1;
      }
    };
  }

  private countOf(rule: CountedRule): Count {
    let count = this.counts.get(rule);
    if (!count) this.counts.set(rule, (count = { elements: 0, pages: 0 }));
    return count;
  }

  private rulesOf(
    site: Site,
    cascade: PageCascade,
    blocks: readonly EmbeddedBlock[],
  ): ReadonlyMap<number, CountedRule> {
    /** By source, where each unit's rule starts within its block. */
    const familyAt = new Map(
      blocks.map(({ sourceIndex, source: { contents }, units }) => [
        sourceIndex,
        new Map(units.map((unit) => [unit.span.start - contents.start, unit.family])),
      ]),
    );
    const byNumber = new Map<number, CountedRule>();
    for (const { compiled, source } of cascade.rules.rules) {
      if (byNumber.has(compiled.number)) continue;
      const { start } = compiled.rule.span;
      const family = source.kind === 'embedded' ? familyAt.get(source.sourceIndex)?.get(start) : undefined;
      if (source.kind === 'embedded' && family === undefined) continue;
      const rule =
        family === undefined
          ? this.ruleAt(site, source.path, start, compiled.rule.selector)
          : this.rule(`family ${family}`, () => ({ sheet: '', start: 0, selector: family, line: 0 }));
      this.known.add(rule);
      byNumber.set(compiled.number, rule);
    }
    return byNumber;
  }

  /** The rules of a sheet as it is now, whatever page has it. */
  rulesOfSheet(site: Site, sheet: string, sheets: SheetCache): readonly CountedRule[] {
    const items = sheets.file(site, sheet, 'utf-8')?.items ?? [];
    return items.flatMap((item) => (item.kind === 'rule' ? [this.ruleAt(site, sheet, item.rule.span.start, item.rule.selector)] : [])); // prettier-ignore
  }

  /** The same counts of a page where rules of its sheets stand elsewhere now; none of those that changed reaches it. */
  moved(sheets: ReadonlyMap<string, SheetMoves>, rules: ReadonlyMap<string, readonly CountedRule[]>): ReachCollector {
    const next = new ReachCollector(this.table);
    const changed = new Set<string>();
    for (const rule of this.known) {
      if (sheets.has(rule.sheet)) changed.add(rule.sheet);
      else next.known.add(rule);
    }
    const byPlace = new Map<string, CountedRule>();
    for (const sheet of changed)
      for (const rule of rules.get(sheet)!) {
        next.known.add(rule);
        byPlace.set(`${sheet} ${rule.start}`, rule);
      }
    for (const [rule, count] of this.counts) {
      const by = sheets.get(rule.sheet)?.by(rule.start);
      const now = changed.has(rule.sheet) ? byPlace.get(`${rule.sheet} ${rule.start + (by ?? 0)}`) : rule;
      if (now && (by !== undefined || now === rule)) next.counts.set(now, { ...count });
    }
    return next;
  }

  private ruleAt(site: Site, sheet: string, start: number, selector: string): CountedRule {
    const file = site.files.get(sheet);
    return this.rule(`sheet ${sheet} ${file?.hash} ${start}`, () => ({ sheet, start, selector, line: placeOf(file?.text ?? '', start).line })); // prettier-ignore
  }

  private rule(key: string, make: () => CountedRule): CountedRule {
    let rule = this.table.get(key);
    if (!rule) this.table.set(key, (rule = make()));
    return rule;
  }
}
