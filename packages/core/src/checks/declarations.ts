import type { Declaration } from '../sheet/sheet.ts';
import type { Check, CheckedPage, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { declarationSlips } from './declarationSlips.ts';
import { eachRuleOfPage, eachRuleOfSheet, type Holder } from './eachRule.ts';
import { FindingGroups, type FindingGroup } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
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
    const inQuirks = holder.page ? holder.page.tree.mode === 'quirks' : this.quirksSheets.has(holder.path);
    for (const { declaration, kind, span, nearest } of declarationSlips(list, inQuirks)) {
      const { property, value } = declaration;
      if (kind === 'unknown-property') this.add(this.unknown, property, holder, span.start, span.end, nearest);
      else this.add(this.invalid, `${property}: ${value}`, holder, span.start, span.end, nearest);
    }
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
    this.quirksSheets = new Set(
      site.survey.sheets.flatMap(({ path, pages }) => (pages.some((page) => this.quirksPages.has(page)) ? [path] : [])),
    );
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
