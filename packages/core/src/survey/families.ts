import { parsePage } from '../page/parsePage.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { placeOf } from '../source/span.ts';
import { comparableValue } from '../values/comparableValue.ts';
import { embeddedBlocks, type Group, type StayReason } from './blockUnits.ts';

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
  /** Number in order of first appearance over the pages. */
  readonly order: number;
}

/** All rules of embedded blocks, grouped over the site, in order of first appearance. */
export function familiesOf(site: Site, onPage?: (done: number, total: number) => void): readonly Family[] {
  const found = new Map<
    string,
    { family: Omit<Family, 'versions' | 'pages'>; versions: Map<string, FamilyVersion & { pages: string[] }> }
  >();
  const files = pagesOf(site);
  files.forEach((file, i) => {
    if (file.text !== undefined) {
      for (const block of embeddedBlocks(parsePage(file.text), file.path)) {
        for (const unit of block.units) {
          let entry = found.get(unit.family);
          if (!entry) {
            const { family: id, label, groups, kind } = unit;
            entry = { family: { id, label, groups, kind, stays: block.stays, order: found.size }, versions: new Map() };
            found.set(id, entry);
          }
          const known = entry.versions.get(unit.version);
          if (known) {
            if (known.pages.at(-1) !== file.path) known.pages.push(file.path);
          } else {
            entry.versions.set(unit.version, {
              id: unit.version,
              pages: [file.path],
              declarations: unit.declarations.map(({ property, value, important }) => ({ property, value, important })),
              text: file.text.slice(unit.span.start, unit.span.end),
              line: placeOf(file.text, unit.span.start).line,
            });
          }
        }
      }
    }
    onPage?.(i + 1, files.length);
  });
  return [...found.values()].map(({ family, versions }) => {
    const sorted = [...versions.values()].sort((a, b) => b.pages.length - a.pages.length);
    return { ...family, versions: sorted, pages: [...new Set(sorted.flatMap((v) => v.pages))] };
  });
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
