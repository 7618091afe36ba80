import type { Declaration } from '../sheet/sheet.ts';
import { declarationValidity } from '../values/declarationValidity.ts';
import { propertyKind } from '../values/longhands.ts';
import type { Check, CheckedPage, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { eachRuleOfPage, eachRuleOfSheet, type Holder } from './eachRule.ts';
import { FindingGroups, type FindingGroup } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { nearestKeyword, nearestProperty } from './nearest.ts';
import { code, nameOf, pagesInWords, verb } from './words.ts';

/** Properties no browser knows and values their property does not take: a browser drops the declaration and says nothing. */
export const declarations: CheckMaker = {
  kinds: ['unknown-property', 'invalid-value'],
  make: () => new Declarations(),
};

class Declarations implements Check {
  private readonly unknown = new FindingGroups();
  private readonly invalid = new FindingGroups();
  private readonly right = new Map<FindingGroup, string | undefined>();
  private readonly sheets: CheckedSheet[] = [];
  private readonly quirksPages = new Set<string>();
  /** Sheets that some page in quirks mode links. */
  private quirksSheets = new Set<string>();

  sheet(sheet: CheckedSheet): void {
    this.sheets.push(sheet);
  }

  page(page: CheckedPage): void {
    if (page.tree.mode === 'quirks') this.quirksPages.add(page.path);
    eachRuleOfPage(page, (list, holder) => this.look(list, holder));
  }

  private look(list: readonly Declaration[], holder: Holder): void {
    for (const declaration of list) {
      const { property, value } = declaration;
      if (isVendors(property) || isVendors(value)) continue;
      if (propertyKind(property) === 'unknown') {
        // `*zoom` and `_height` are meant for old browsers only
        if (!/^[a-z][a-z-]*$/.test(property) || oldNames.has(property) || isDescriptor(list)) continue;
        const start = declaration.span.start;
        this.add(this.unknown, property, holder, start, start + property.length, () => nearestProperty(property));
      } else if (this.isDropped(declaration, holder) && !this.hasFallback(declaration, list)) {
        const { start, end } = declaration.valueSpan;
        this.add(this.invalid, `${property}: ${value}`, holder, start, end, () => nearestValue(property, value));
      }
    }
  }

  private isDropped({ property, value }: Declaration, { page, path }: Holder): boolean {
    const validity = declarationValidity(property, value);
    if (validity === 'invalid') return true;
    // without a unit: right only on pages in quirks mode, of which another finding tells
    const inQuirks = page ? page.tree.mode === 'quirks' : this.quirksSheets.has(path);
    return validity === 'quirks' && !inQuirks;
  }

  /** Another spelling beside it counts: this one is for other browsers. */
  private hasFallback(declaration: Declaration, list: readonly Declaration[]): boolean {
    return list.some(
      (other) =>
        other !== declaration &&
        other.property === declaration.property &&
        declarationValidity(other.property, other.value) !== 'invalid',
    );
  }

  private add(
    groups: FindingGroups,
    subject: string,
    holder: Holder,
    start: number,
    end: number,
    nearest: () => string | undefined,
  ): void {
    const group = groups.about(subject);
    if (!this.right.has(group)) this.right.set(group, nearest());
    if (holder.page) group.page(holder.path);
    group.at(holder, holder.tagStart ?? start);
    const right = this.right.get(group);
    if (right !== undefined && holder.tagStart === undefined)
      group.mend(holder.path, { span: { start, end }, text: right });
  }

  merge(page: Declarations): void {
    const right = (mine: FindingGroup, theirs: FindingGroup): void => {
      if (!this.right.has(mine)) this.right.set(mine, page.right.get(theirs));
    };
    for (const path of page.quirksPages) this.quirksPages.add(path);
    this.unknown.merge(page.unknown, right);
    this.invalid.merge(page.invalid, right);
  }

  findings(site: CheckedSite): readonly FoundFinding[] {
    this.quirksSheets = new Set(site.survey.sheets.flatMap(({ path, pages }) => (pages.some((page) => this.quirksPages.has(page)) ? [path] : []))); // prettier-ignore
    for (const sheet of this.sheets) eachRuleOfSheet(sheet, (list, holder) => this.look(list, holder));
    const unknown = this.unknown.all.map((group) => {
      const right = this.right.get(group);
      const rest = right === undefined ? 'which no browser knows' : `which does nothing; ${code(right)} is a property`;
      return group.finding('unknown-property', `${says(group, site)} ${code(group.subject)}, ${rest}`, {
        mend: 'Correct it',
        look: 'See it',
      });
    });
    const invalid = this.invalid.all.map((group) => {
      const right = this.right.get(group);
      const rest = right === undefined ? 'which browsers drop' : `which browsers drop; ${code(right)} is right`;
      return group.finding('invalid-value', `${says(group, site)} ${code(group.subject)}, ${rest}`, {
        mend: 'Correct it',
        look: 'See it',
      });
    });
    return [...unknown, ...invalid];
  }
}

/** Who says it: pages with blocks or attributes, and sheets, whose pages then count as concerned. */
export function says(group: FindingGroup, { survey }: CheckedSite): string {
  const sheets = group.places.map((p) => p.path).filter((path) => /\.css$/i.test(path));
  const own = [...group.pages];
  const names = [...(own.length > 0 ? [pagesInWords(own)] : []), ...sheets.map((path) => code(nameOf(path)))];
  const concerned = new Set(survey.sheets.filter((s) => sheets.includes(s.path)).flatMap((s) => s.pages));
  for (const page of concerned) if (!own.includes(page)) group.pages.push(page);
  return `${names.join(', ')} ${verb(own.length + sheets.length, 'say', 'says')}`;
}

const isVendors = (text: string): boolean =>
  /(^|[\s,(])-(webkit|moz|ms|o|khtml)-|progid:|expression\(|\\[09]|^alpha\(/i.test(text);

/** Once known to some browser; harmless, and no slip of the pen. From memory. */
const oldNames = new Set(
  'behavior filter ime-mode layout-flow scrollbar-face-color scrollbar-track-color scrollbar-arrow-color scrollbar-highlight-color scrollbar-shadow-color scrollbar-base-color scrollbar-3dlight-color scrollbar-darkshadow-color text-autospace writing-mode font-smoothing src unicode-range font-display'.split(
    ' ',
  ),
);

/** A run that looks like the inside of `@font-face`, where other names count. */
const isDescriptor = (list: readonly Declaration[]): boolean => list.some((d) => d.property === 'src');

function nearestValue(property: string, value: string): string | undefined {
  if (/^\d*\.?\d+$/.test(value) && declarationValidity(property, `${value}px`) === 'valid') return `${value}px`;
  const words = value.split(/(\s+)/);
  for (const [i, word] of words.entries()) {
    if (!/^[a-z-]+$/i.test(word)) continue;
    const right = nearestKeyword(property, word);
    const mended = right === undefined ? undefined : [...words.slice(0, i), right, ...words.slice(i + 1)].join('');
    if (mended !== undefined && declarationValidity(property, mended) === 'valid') return mended;
  }
  return undefined;
}
