import { distance } from 'fastest-levenshtein';
import { isKnownElement } from '../page/knownElements.ts';
import type { Edit } from '../source/span.ts';
import type { Check, CheckContext, CheckedPage, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { FindingGroup, FindingGroups } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { asciiText } from '../source/asciiBytes.ts';
import { eachSelector } from '../survey/selectorNames.ts';
import { offsetInAttribute } from '../page/attributeText.ts';
import type { ElementNode } from '../page/nodes.ts';
import { openPage, type OpenPage } from '../survey/openPage.ts';
import { code, pagesInWords, verb } from './words.ts';

/** Names that do not meet: a class the sheets spell otherwise, a name with a space in it, one ID on two elements. */
export const names: CheckMaker = {
  kinds: ['renamed-class', 'name-with-space', 'duplicate-id'],
  make: (context) => new Names(context),
};

class Names implements Check {
  /** Classes that selectors name, with the first file that does. */
  private readonly said = new Map<string, string>();
  /** Classes that elements have, with the pages. */
  private readonly used = new Map<string, Pick<CheckedPage, 'path' | 'marks'>[]>();
  /** Of one page. */
  private own: Pick<CheckedPage, 'path' | 'marks'> | undefined;
  private readonly spaced = new FindingGroups();
  private readonly twice = new FindingGroups();
  private readonly idWithSpace = new FindingGroups();
  private scripts = '';
  private last: OpenPage | undefined;
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  sheet({ path, sheet, lines, text }: CheckedSheet): void {
    this.selectors(sheet.rules, { path, lines, text }, undefined);
  }

  page(page: CheckedPage): void {
    for (const block of page.blocks) this.selectors(block.sheet.rules, page, page.path);
    const ids = new Set<string>();
    const { path, marks } = page;
    this.own = { path, marks };
    for (const element of page.tree.elements) {
      const { id } = element;
      if (id !== undefined && id !== '') {
        if (ids.has(id)) this.twice.about(`#${id}`).page(page.path).at(page, element.start);
        ids.add(id);
        if (/[\t\n\f\r ]/.test(id.trim())) this.idWithSpace.about(id).page(page.path).at(page, element.start);
      }
      if (element.tag === 'script')
        for (const child of element.children) if (child.type === 'text') this.scripts += child.value;
    }
  }

  /** The page asked for last is opened once. */
  private opened(path: string): OpenPage {
    if (this.last?.path !== path) this.last = openPage(this.context.site.files.get(path)!)!;
    return this.last;
  }

  private selectors(
    rules: Parameters<typeof eachSelector>[0],
    at: { path: string; lines: CheckedSheet['lines']; text: string },
    page: string | undefined,
  ): void {
    eachSelector(rules, (selector, start) => {
      for (const compound of selector.compounds)
        for (const simple of compound.simples)
          if (simple.kind === 'class' && !this.said.has(simple.name)) this.said.set(simple.name, at.path);
      selector.compounds.forEach((compound, i) => {
        const before = selector.compounds[i - 1]?.simples.at(-1);
        const first = compound.simples[0];
        if (
          i === 0 ||
          selector.combinators[i - 1] !== ' ' ||
          first?.kind !== 'type' ||
          (before?.kind !== 'class' && before?.kind !== 'id')
        )
          return;
        if (isKnownElement(first.lower)) return;
        const group = this.spaced
          .about(`${before.kind === 'class' ? '.' : '#'}${before.name} ${first.name}`)
          .at(at, start);
        if (page !== undefined) group.page(page);
      });
    });
  }

  merge(page: Names): void {
    for (const [name, path] of page.said) if (!this.said.has(name)) this.said.set(name, path);
    for (const mark of page.own?.marks.names ?? []) {
      if (!mark.startsWith('.')) continue;
      const pages = this.used.get(mark.slice(1));
      if (pages) pages.push(page.own!);
      else this.used.set(mark.slice(1), [page.own!]);
    }
    this.spaced.merge(page.spaced);
    this.twice.merge(page.twice);
    this.idWithSpace.merge(page.idWithSpace);
    this.scripts += page.scripts;
  }

  findings({ survey }: CheckedSite): readonly FoundFinding[] {
    const files = [...this.context.site.files.values()].filter((f) => /\.m?js$/i.test(f.path));
    this.scripts += files.map((f) => asciiText(f.bytes)).join('\n');
    return [
      ...this.renamed(),
      ...this.spaced.all.map((group) => {
        const sheets = group.places.map((p) => p.path);
        for (const page of survey.sheets.filter((s) => sheets.includes(s.path)).flatMap((s) => s.pages))
          group.page(page);
        const [, space] = group.subject.split(' ');
        return group.finding(
          'name-with-space',
          `${code(group.subject)} in ${code(sheets[0]!)} looks for an element ${code(space!)} inside; a name has no space in it`,
          { look: 'See it' },
        );
      }),
      ...this.idWithSpace.all.map((group) =>
        group.finding(
          'name-with-space',
          `${pagesInWords(group.pages)} ${verb(group.pages.length, 'have', 'has')} the ID ${code(group.subject)}; a name has no space in it, so no selector reaches it`,
          { look: 'See it' },
        ),
      ),
      ...this.twice.all.map((group) =>
        group.finding(
          'duplicate-id',
          `${pagesInWords(group.pages)} ${verb(group.pages.length, 'have', 'has')} ${code(group.subject)} on more than one element`,
          { look: 'See it' },
        ),
      ),
    ];
  }

  /** A class on pages that no selector names beside one in sheets that no element has, alike but for a slip. */
  private renamed(): readonly FoundFinding[] {
    const orphans = [...this.said.keys()].filter((name) => !this.used.has(name));
    let looks = 0;
    let told = 0;
    return [...this.used].flatMap(([name, pages]) => {
      if (looks > mostLooks || told >= mostTold || this.said.has(name)) return [];
      // a text of thousands of names against thousands of names is not worth the wait
      looks += orphans.length + this.scripts.length / 100;
      if (this.scripts.includes(name)) return [];
      const other = orphans.find((orphan) => areAlike(orphan, name));
      if (other === undefined) return [];
      told++;
      const said = this.said.get(other)!;
      const group = new FindingGroup(name);
      for (const { path, marks } of pages) {
        const opened = this.opened(path);
        group
          .page(path)
          .at(opened, marks.startOf(`.${name}`)!)
          .mend(path, ...renameEdits(opened, name, other));
      }
      const sentence = `${pagesInWords(group.pages)} ${verb(group.pages.length, 'say', 'says')} ${code(name)}, ${code(said)} says ${code(`.${other}`)}: neither meets the other`;
      return [group.finding('renamed-class', sentence, { mend: 'Use the sheet’s name' })];
    });
  }
}

/** Nobody reads more findings of one kind, and each reads its pages again. */
const mostTold = 200;

/** Comparisons of names, all in all; a site that needs more is told of those found until then. */
const mostLooks = 3_000_000;

/** Same letters but for case, hyphens and underscores, or one or two slips in a name long enough. */
function areAlike(a: string, b: string): boolean {
  const fold = (name: string): string => name.toLowerCase().replace(/[-_]/g, '');
  if (fold(a) === fold(b)) return true;
  const length = Math.min(a.length, b.length);
  if (/^\D*\d+$/.test(a) || /^\D*\d+$/.test(b)) return false;
  return length >= 5 && a[0] === b[0] && distance(a, b) <= (length >= 8 ? 2 : 1);
}

function renameEdits(page: OpenPage, from: string, to: string): readonly Edit[] {
  return page.tree.elements.flatMap((element: ElementNode) => {
    const place = element.attributeSpans?.['class'];
    if (!place || !element.classes.includes(from)) return [];
    const value = element.attributes.find((a) => a.name === 'class')!.value;
    const written = page.text.slice(place.startOffset, place.endOffset);
    return [...value.matchAll(/[^\t\n\f\r ]+/g)].flatMap((token) => {
      if (token[0] !== from) return [];
      const start = place.startOffset + offsetInAttribute(written, token.index);
      const end = place.startOffset + offsetInAttribute(written, token.index + from.length);
      return [{ span: { start, end }, text: to }];
    });
  });
}
