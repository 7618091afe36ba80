import { pagesOf, type Site } from '../source/site.ts';
import type { LineIndex } from '../source/span.ts';
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

type Found = {
  family: Omit<Family, 'versions' | 'pages' | 'twins'>;
  versions: Map<string, FamilyVersion & { pages: string[] }>;
};

/** Groups the rules of embedded blocks over pages, in order of first appearance. */
export class FamilyCollector {
  private readonly found = new Map<string, Found>();

  add({ path, text, lines, blocks }: OpenPage): void {
    for (const block of blocks) for (const unit of block.units) this.unit(unit, block.stays, path, text, lines);
  }

  private unit(unit: BlockUnit, stays: StayReason | undefined, path: string, text: string, lines: LineIndex): void {
    let entry = this.found.get(unit.family);
    if (!entry) {
      const { family: id, label, groups, kind } = unit;
      entry = { family: { id, label, groups, kind, stays, order: this.found.size }, versions: new Map() };
      this.found.set(id, entry);
    }
    const known = entry.versions.get(unit.version);
    if (known) {
      if (known.pages.at(-1) !== path) known.pages.push(path);
      return;
    }
    const declarations = unit.declarations.map(({ property, value, important }) => ({ property, value, important }));
    const written = text.slice(unit.span.start, unit.span.end);
    entry.versions.set(unit.version, {
      id: unit.version,
      pages: [path],
      declarations,
      text: written,
      line: lines.placeOf(unit.span.start).line,
    });
  }

  merge(page: FamilyCollector): void {
    for (const [id, { family, versions }] of page.found) {
      let entry = this.found.get(id);
      if (!entry) this.found.set(id, (entry = { family: { ...family, order: this.found.size }, versions: new Map() }));
      for (const [key, version] of versions) {
        const known = entry.versions.get(key);
        if (!known) entry.versions.set(key, { ...version, pages: [...version.pages] });
        else for (const path of version.pages) if (known.pages.at(-1) !== path) known.pages.push(path);
      }
    }
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
  const files = pagesOf(site);
  files.forEach((file, i) => {
    const page = openPage(file);
    if (page) collector.add(page);
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
