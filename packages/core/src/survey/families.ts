import { pagesOf, type Site } from '../source/site.ts';
import { comparableValue } from '../values/comparableValue.ts';
import type { BlockUnit, Group, StayReason } from './blockUnits.ts';
import { openPage, type OpenPage } from './openPage.ts';

/** One distinct set of declarations within a family, and the pages that hold it. */
export interface FamilyVersion {
  readonly id: string;
  readonly pages: readonly string[];
  readonly declarations: readonly { readonly property: string; readonly value: string; readonly important: boolean }[];
  /** The rule as the first page writes it. */
  readonly text: string;
  readonly line: number;
}

/** The same rule (selector and conditions) wherever it stands in embedded blocks. More than one version: it has drifted. */
export interface Family {
  readonly id: string;
  readonly label: string;
  readonly groups: readonly Group[];
  readonly kind: 'rule' | 'definition';
  readonly versions: readonly FamilyVersion[];
  readonly pages: readonly string[];
  /** Why it stays where it is, on the pages where it does. */
  readonly stays: StayReason | undefined;
  /** Families with the same declarations under another selector or condition; of many, the first. */
  readonly twins: readonly string[];
  /** Number in order of first appearance over the pages. */
  readonly order: number;
}

/** A rule as pages write it: one for all that write it alike. */
interface WrittenRule {
  readonly family: Omit<Family, 'versions' | 'pages' | 'twins' | 'order'>;
  readonly version: Omit<FamilyVersion, 'pages' | 'line'>;
}

/** By what they say and where they stay. */
export type WrittenRules = Map<string, WrittenRule>;

/** So many are kept: a site holds few that differ. */
const mostKept = 50_000;

/** The rules of one page's blocks in order, each with its line: what is kept of every page of a site, so no more than that. */
export interface PageRules {
  readonly path: string;
  readonly rules: readonly WrittenRule[];
  readonly lines: Int32Array;
}

export function rulesOfPage({ path, text, lines, blocks }: OpenPage, known: WrittenRules): PageRules {
  const units = blocks.flatMap((block) => block.units.map((unit) => ({ unit, stays: block.stays })));
  return {
    path,
    rules: units.map(({ unit, stays }) => writtenRule(unit, stays, text, known)),
    lines: Int32Array.from(units, ({ unit }) => lines.placeOf(unit.span.start).line),
  };
}

function writtenRule(unit: BlockUnit, stays: StayReason | undefined, text: string, known: WrittenRules): WrittenRule {
  const { family: id, label, groups, kind, version } = unit;
  const written = text.slice(unit.span.start, unit.span.end);
  const key = `${stays ?? ''}\n${id}\n${version}\n${written}`;
  let rule = known.get(key);
  if (!rule) {
    if (known.size >= mostKept) known.clear();
    const declarations = unit.declarations.map(({ property, value, important }) => ({ property, value, important }));
    // a slice of the page's text would hold all of it in memory
    const ownText = key.slice(key.length - written.length);
    rule = { family: { id, label, groups, kind, stays }, version: { id: version, declarations, text: ownText } };
    known.set(key, rule);
  }
  return rule;
}

type Found = {
  family: Omit<Family, 'versions' | 'pages' | 'twins'>;
  versions: Map<string, FamilyVersion & { pages: string[] }>;
};

/** Groups the rules of embedded blocks over pages, in order of first appearance. */
export class FamilyCollector {
  private readonly found = new Map<string, Found>();

  add({ path, rules, lines }: PageRules): void {
    rules.forEach(({ family, version }, i) => {
      let entry = this.found.get(family.id);
      if (!entry) {
        entry = { family: { ...family, order: this.found.size }, versions: new Map() };
        this.found.set(family.id, entry);
      }
      const known = entry.versions.get(version.id);
      if (!known) entry.versions.set(version.id, { ...version, pages: [path], line: lines[i]! });
      else if (known.pages.at(-1) !== path) known.pages.push(path);
    });
  }

  families(): readonly Family[] {
    const byVersion = new Map<string, string[]>();
    for (const [id, { family, versions }] of this.found) {
      if (family.kind !== 'rule') continue;
      for (const version of versions.keys())
        if (version === '') continue;
        else if (byVersion.has(version)) byVersion.get(version)!.push(id);
        else byVersion.set(version, [id]);
    }
    return [...this.found.values()].map(({ family, versions }) => {
      const sorted = [...versions.values()].sort((a, b) => b.pages.length - a.pages.length);
      const twins = twinsOf(family.id, sorted, byVersion);
      return { ...family, versions: sorted, pages: [...new Set(sorted.flatMap((v) => v.pages))], twins };
    });
  }
}

/** Nobody reads more of them, and each of thousands would list all others. */
const mostTwins = 50;

function twinsOf(
  id: string,
  versions: readonly FamilyVersion[],
  byVersion: ReadonlyMap<string, readonly string[]>,
): readonly string[] {
  const twins = new Set<string>();
  for (const version of versions)
    for (const other of byVersion.get(version.id) ?? []) {
      if (twins.size >= mostTwins) return [...twins];
      if (other !== id) twins.add(other);
    }
  return [...twins];
}

/** All rules of embedded blocks, grouped over the site, in order of first appearance. */
export function familiesOf(site: Site, onPage?: (done: number, total: number) => void): readonly Family[] {
  const collector = new FamilyCollector();
  const known: WrittenRules = new Map();
  const files = pagesOf(site);
  files.forEach((file, i) => {
    const page = openPage(file);
    if (page) collector.add(rulesOfPage(page, known));
    onPage?.(i + 1, files.length);
  });
  return collector.families();
}

/** The properties versions of a family disagree on, by meaning, in order of first appearance. */
export function driftedProperties(family: Family): readonly string[] {
  const properties = [...new Set(family.versions.flatMap((v) => v.declarations.map((d) => d.property)))];
  return properties.filter((property) => {
    const values = family.versions.map((version) => {
      const declaration = version.declarations.findLast((d) => d.property === property);
      return declaration ? `${comparableValue(property, declaration.value)}${declaration.important ? '!' : ''}` : '';
    });
    return new Set(values).size > 1;
  });
}
