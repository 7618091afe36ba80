import type { MatchedSelector } from '../cascade/indexedSelector.ts';
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

/** Rules by sheet and place, families by name: those that pages share are one. */
export type RuleTable = Map<string, CountedRule>;

/** How many elements of a page each rule it has applies to: what is kept of every page of a site, so no more than that. */
export interface PageReach {
  readonly rules: readonly CountedRule[];
  /** By rule; 0 for a rule that no element has. */
  readonly elements: Int32Array;
}

export const noReach: PageReach = { rules: [], elements: new Int32Array() };

interface Count {
  elements: number;
  pages: number;
}

/** Counts, over pages, the elements that each rule of the shared sheets, and each family of embedded rules, applies to. */
export class ReachCollector {
  /** Also of rules that no element has. */
  private readonly counts = new Map<CountedRule, Count>();
  private readonly table: RuleTable;

  constructor(table: RuleTable) {
    this.table = table;
  }

  /** Adds the counts of a page. */
  add({ rules, elements }: PageReach): void {
    rules.forEach((rule, i) => {
      let count = this.counts.get(rule);
      if (!count) this.counts.set(rule, (count = { elements: 0, pages: 0 }));
      count.elements += elements[i]!;
      if (elements[i]! > 0) count.pages++;
    });
  }

  /** Elements that rules of a family in embedded blocks apply to, over all pages; undefined for definitions and nested rules. */
  elementsOf(family: string): number | undefined {
    const rule = this.table.get(`family ${family}`);
    return rule && this.counts.get(rule)?.elements;
  }

  /** By sheet, in the order of the sheet. Rules of a sheet that no page reaches are not there. */
  rules(): readonly RuleReach[] {
    return [...this.counts]
      .filter(([{ sheet }]) => sheet !== '')
      .map(([{ sheet, selector, line }, count]) => ({ sheet, selector, line, ...count }))
      .sort((a, b) => (a.sheet === b.sheet ? a.line - b.line : a.sheet < b.sheet ? -1 : 1));
  }
}

/** Counts the elements of one page: `count` is to be told of each of them. */
export class PageReachCounter {
  readonly reach: PageReach;
  /** Place in the list of rules, by the number of the compiled rule. */
  private readonly places = new Map<number, number>();

  constructor(
    site: Site,
    { cascade, blocks }: { readonly cascade: PageCascade; readonly blocks: readonly EmbeddedBlock[] },
    table: RuleTable,
  ) {
    const familyAt = familiesByPlace(blocks);
    const places = new Map<CountedRule, number>();
    for (const { compiled, source } of cascade.rules.rules) {
      if (this.places.has(compiled.number)) continue;
      const { start } = compiled.rule.span;
      const family = source.kind === 'embedded' ? familyAt.get(source.sourceIndex)?.get(start) : undefined;
      if (source.kind === 'embedded' && family === undefined) continue;
      const rule =
        family === undefined
          ? sheetRule(site, source.path, start, compiled.rule.selector, table)
          : ruleOf(table, `family ${family}`, () => ({ sheet: '', start: 0, selector: family, line: 0 }));
      let place = places.get(rule);
      if (place === undefined) places.set(rule, (place = places.size));
      this.places.set(compiled.number, place);
    }
    this.reach = { rules: [...places.keys()], elements: new Int32Array(places.size) };
  }

  count(matched: readonly MatchedSelector[]): void {
    const { elements } = this.reach;
    for (const { indexed } of matched) {
      const place = this.places.get(indexed.rule.compiled.number);
      // a pseudo-element is counted only while no element is
      if (place !== undefined && (indexed.pseudoElement === '' || elements[place] === 0)) elements[place]!++;
    }
  }
}

/** By source, where each unit's rule starts within its block. */
const familiesByPlace = (blocks: readonly EmbeddedBlock[]): ReadonlyMap<number, ReadonlyMap<number, string>> =>
  new Map(
    blocks.map(({ sourceIndex, source: { contents }, units }) => [
      sourceIndex,
      new Map(units.map((unit) => [unit.span.start - contents.start, unit.family])),
    ]),
  );

/** The rules of a sheet as it is now, whatever page has it. */
export function rulesOfSheet(site: Site, sheet: string, sheets: SheetCache, table: RuleTable): readonly CountedRule[] {
  const items = sheets.file(site, sheet, 'utf-8')?.items ?? [];
  return items.flatMap((item) =>
    item.kind === 'rule' ? [sheetRule(site, sheet, item.rule.span.start, item.rule.selector, table)] : [],
  );
}

/** The same counts of a page where rules of its sheets stand elsewhere now; none of those that changed reaches it. */
export function movedReach(
  page: PageReach,
  sheets: ReadonlyMap<string, SheetMoves>,
  rules: ReadonlyMap<string, readonly CountedRule[]>,
): PageReach {
  const counts = new Map<CountedRule, number>();
  const byPlace = new Map<string, CountedRule>();
  for (const sheet of new Set(page.rules.map((rule) => rule.sheet)))
    for (const rule of sheets.has(sheet) ? rules.get(sheet)! : []) {
      counts.set(rule, 0);
      byPlace.set(`${sheet} ${rule.start}`, rule);
    }
  page.rules.forEach((rule, i) => {
    const moves = sheets.get(rule.sheet);
    const by = moves?.by(rule.start);
    const now = moves ? by !== undefined && byPlace.get(`${rule.sheet} ${rule.start + by}`) : rule;
    if (now) counts.set(now, page.elements[i]!);
  });
  return { rules: [...counts.keys()], elements: Int32Array.from(counts.values()) };
}

const sheetRule = (site: Site, sheet: string, start: number, selector: string, table: RuleTable): CountedRule => {
  const file = site.files.get(sheet);
  return ruleOf(table, `sheet ${sheet} ${file?.hash} ${start}`, () => ({
    sheet,
    start,
    selector,
    line: placeOf(file?.text ?? '', start).line,
  }));
};

function ruleOf(table: RuleTable, key: string, make: () => CountedRule): CountedRule {
  let rule = table.get(key);
  if (!rule) table.set(key, (rule = make()));
  return rule;
}
