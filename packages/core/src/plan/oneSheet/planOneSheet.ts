import type { GatherSheet, PageMark, WrittenRule } from '../../operations/gather/gatherSheet.ts';
import { linksPlainly } from '../../page/styleSources.ts';
import type { Site } from '../../source/site.ts';
import { readingOf, type PageReading } from '../../survey/pageReading.ts';
import { PageSet } from '../pageSet.ts';
import { makeRuleGraph } from '../ruleGraph.ts';
import { readRuleTable, type RuleTable } from '../ruleTable.ts';
import { linkPlaceOf, type LinkPlace } from './linkPlaces.ts';
import { movingRules, withOther } from './movingRules.ts';
import type { OneSheetOptions } from './oneSheetOptions.ts';
import { scopeRules, type ScopedRule } from './scopeRules.ts';
import { inSections } from './sections.ts';
import { shareDeclarations, type SharedTable } from './sharedDeclarations.ts';
import { writeSelectors } from './writeSelectors.ts';

const mostRounds = 8;

/**
 * One sheet for all embedded rules of the pages: what is for some of them asks for a class of their `body`. What cannot stand there
 * without a change of look, as far as the rules alone tell, stays. Undefined when there is nothing for the sheet.
 */
export function planOneSheet(site: Site, options: OneSheetOptions): GatherSheet | undefined {
  const paths = [...new Set([...options.pages, ...(options.alsoLinking ?? [])])];
  const held = readRuleTable(site, paths, new Set(options.alsoLinking));
  const read = options.instead ? withOther(held, options.instead) : held;
  // what says nothing is bound to no place
  const dead = new Set(read.rules.flatMap((rule) => (rule.dead ? [rule.number] : [])));
  const table = movingRules(
    read,
    read.pages.map(() => dead),
  );
  const readings = paths.map((path) => readingOf(site.files.get(path)!));
  const taking = new Set(options.pages);
  const left = table.rules.map(
    ({ holders }) => options.stays?.([...holders].map((page) => table.pages[page]!.path)) === true,
  );
  const staying = table.pages.map(
    ({ path, sequence }) => new Set(sequence.filter((rule) => !taking.has(path) || left[rule])),
  );
  for (let round = 1; round <= mostRounds; round++) {
    const places = table.pages.map((page, i) =>
      linkPlaceOf(table, page, staying[i]!, linkedAt(readings[i], page.anchors, options.sheet)),
    );
    const shared = shareDeclarations(
      movingRules(
        table,
        places.map((place) => place.staying),
      ),
    );
    const made = writtenSheet(site, shared, readings, options);
    if (made.stuck.length === 0) return made.written && operationOf(read, places, shared, made.written, options);
    for (const { page, family } of made.stuck)
      for (const rule of table.pages[page]!.sequence)
        if (table.rules[rule]!.family === family) staying[page]!.add(rule);
  }
  return undefined;
}

interface WrittenSheet {
  readonly rules: readonly WrittenRule[];
  readonly marks: readonly PageMark[];
}

/** A rule that cannot go to the sheet from a page. */
interface Stuck {
  readonly page: number;
  readonly family: string;
}

function writtenSheet(
  site: Site,
  table: SharedTable,
  readings: readonly (PageReading | undefined)[],
  options: OneSheetOptions,
): { readonly written: WrittenSheet | undefined; readonly stuck: readonly Stuck[] } {
  const graph = makeRuleGraph(table);
  const linking = linkingPages(table, options);
  const { rules, marks, stuck } = scopeRules({ site, table, graph, readings, linking, options });
  const all = [...stuck, ...lostRules(table, rules)].flatMap(({ rule, pages }) =>
    [...pages].map((page) => ({ page, family: rule.family })),
  );
  if (all.length > 0 || rules.length === 0) return { written: undefined, stuck: all };
  const pathsOf = (set: PageSet): readonly string[] => [...set].map((page) => table.pages[page]!.path);
  const placed = rules.map((one) => ({
    pages: pathsOf(one.pages),
    marks: one.marks.map(({ name }) => name),
    before: one.before,
  }));
  const { order, headings } = inSections(placed, asFirstSeen(table, rules), pathsOf(linking));
  const { selectors, stuck: unwritable } = writeSelectors({ site, table, rules, order, readings, options });
  if (unwritable.length > 0)
    return {
      written: undefined,
      stuck: unwritable.flatMap((i) => [...rules[i]!.pages].map((page) => ({ page, family: rules[i]!.rule.family }))),
    };
  const written = order.map((i) => entry(rules[i]!, selectors.get(i), headings[i]));
  const used = marks.filter((mark) => rules.some((rule) => rule.marks.includes(mark)));
  return {
    written: {
      rules: [...written, ...silentVersions(table, rules)],
      marks: used.map(({ name, on, pages }) => ({ name, on, pages: pathsOf(pages) })),
    },
    stuck: [],
  };
}

/** Rules by where a person meets them first: on the pages that hold most of what many pages hold, in their order. */
function asFirstSeen(table: RuleTable, rules: readonly ScopedRule[]): readonly number[] {
  const shared = (page: number): number =>
    table.pages[page]!.sequence.filter((rule) => table.rules[rule]!.holders.size * 2 > table.pages.length).length;
  const typical = table.pages.map((_, page) => page).sort((a, b) => shared(b) - shared(a) || a - b);
  const seen = new Map<number, number>();
  for (const page of typical)
    for (const rule of table.pages[page]!.sequence) if (!seen.has(rule)) seen.set(rule, seen.size);
  const at = (i: number): number => seen.get(rules[i]!.rule.number)!;
  return rules.map((_, i) => i).sort((a, b) => at(a) - at(b) || a - b);
}

const entry = ({ rule }: ScopedRule, selector: string | undefined, section: string | undefined): WrittenRule => ({
  family: rule.family,
  version: rule.version,
  ...(selector === undefined ? {} : { selector }),
  ...(rule.only === undefined ? {} : { only: rule.only }),
  ...(section === undefined ? {} : { section }),
});

/** Pages that hold a rule of the sheet, and those that link it in any case. */
function linkingPages(table: RuleTable, { alsoLinking }: OneSheetOptions): PageSet {
  const also = new Set(alsoLinking);
  const linking = PageSet.empty(table.pages.length);
  table.pages.forEach(({ path, sequence }, page) => {
    if (sequence.length > 0 || also.has(path)) linking.add(page);
  });
  return linking;
}

/** Rules the graph left out of a cycle, with the pages where they did. */
function lostRules(table: RuleTable, rules: readonly ScopedRule[]): readonly Pick<ScopedRule, 'rule' | 'pages'>[] {
  const there = table.rules.map(() => PageSet.empty(table.pages.length));
  for (const { rule, pages } of rules) there[rule.number]!.addAll(pages);
  const wanted = table.rules.map(() => PageSet.empty(table.pages.length));
  table.pages.forEach(({ sequence }, page) => {
    for (const rule of sequence) wanted[rule]!.add(page);
  });
  return table.rules.flatMap((rule, i) => {
    const lost = wanted[i]!.minus(there[i]!);
    return lost.isEmpty ? [] : [{ rule, pages: lost }];
  });
}

/** Versions of which the others say all: they leave their pages as well. */
function silentVersions(table: SharedTable, rules: readonly ScopedRule[]): readonly WrittenRule[] {
  const written = new Set(rules.map(({ rule }) => `${rule.family}\n${rule.version}`));
  return table.silent.flatMap((number) => {
    const { family, version } = table.rules[number]!;
    return written.has(`${family}\n${version}`) ? [] : [{ family, version, only: [] }];
  });
}

function operationOf(
  table: RuleTable,
  places: readonly LinkPlace[],
  moving: RuleTable,
  { rules, marks }: WrittenSheet,
  { sheet, pages: wanted }: OneSheetOptions,
): GatherSheet {
  const named = new Set(rules.map(({ family, version }) => `${family}\n${version}`));
  const except = table.pages.flatMap(({ path, sequence }, i) =>
    moving.pages[i]!.sequence.length === 0
      ? []
      : sequence
          .map((rule) => table.rules[rule]!)
          .filter(({ number, family, version }) => places[i]!.staying.has(number) && named.has(`${family}\n${version}`))
          .map(({ family, version }) => ({ family, version, page: path })),
  );
  const taking = new Set(wanted);
  const dead = table.rules.filter(
    (rule) => rule.dead && table.pages.some(({ path, sequence }) => taking.has(path) && sequence.includes(rule.number)),
  );
  const silent = new Set(dead.map(({ number }) => number));
  const pages = table.pages.flatMap(({ path, sequence }, i) =>
    moving.pages[i]!.sequence.length > 0 || (taking.has(path) && sequence.some((rule) => silent.has(rule)))
      ? [path]
      : [],
  );
  const ahead = Object.fromEntries(table.pages.flatMap((page, i) => aheadOf(page, places[i]!)));
  return {
    kind: 'gather-sheet',
    sheet,
    pages,
    rules: [...rules, ...dead.map(({ family, version }): WrittenRule => ({ family, version, dead: true }))],
    ...(marks.length > 0 ? { marks } : {}),
    ...(except.length > 0 ? { except } : {}),
    ...(Object.keys(ahead).length > 0 ? { ahead } : {}),
  };
}

/** Nothing where no source stands between: the first block is the place then. */
function aheadOf(
  { path, anchors, blocks }: RuleTable['pages'][number],
  { segment }: LinkPlace,
): readonly (readonly [string, number])[] {
  if (anchors.length === 0) return [];
  const from = segment === 0 ? 0 : anchors[segment - 1]!.index + 1;
  const to = anchors[segment]?.index ?? Infinity;
  const block = blocks.find((index) => index >= from && index < to);
  return [[path, block ?? from]];
}

/** Behind so many of the sources that stay the page links the sheet already. */
function linkedAt(
  reading: PageReading | undefined,
  anchors: RuleTable['pages'][number]['anchors'],
  sheet: string,
): number | undefined {
  const at = reading?.sources.findIndex((source) => linksPlainly(source, sheet)) ?? -1;
  return at < 0 ? undefined : anchors.filter(({ index }) => index <= at).length;
}
