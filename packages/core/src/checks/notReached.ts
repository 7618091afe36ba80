import { readingOf } from '../survey/pageReading.ts';
import type { Check, CheckContext, CheckedPage, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { FindingGroup } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import type { PageMarks } from './pageMarks.ts';
import { insertLink } from '../survey/insertLink.ts';
import { fileMeantBy } from './retarget.ts';
import { eachSelector, namesIn, type MarkedName } from '../survey/selectorNames.ts';
import { openPage } from '../survey/openPage.ts';
import { folderOf } from '../source/sitePath.ts';
import { code, nameOf, namesInWords, pagesInWords, verb } from './words.ts';

interface Lone {
  readonly page: string;
  readonly reached: ReadonlySet<string>;
  /** Names that the page's own blocks tell. */
  readonly own: ReadonlySet<MarkedName>;
  readonly marks: PageMarks;
}

/** A page whose classes have their rules in a sheet that this page does not link: the rule is there and nothing happens. */
export const notReached: CheckMaker = { kinds: ['rule-not-reached'], make: (context) => new NotReached(context) };

class NotReached implements Check {
  /** Names that selectors of a sheet tell. */
  private readonly told = new Map<string, Set<MarkedName>>();
  private readonly pages: Lone[] = [];
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  sheet({ path, sheet }: CheckedSheet): void {
    const names = new Set<MarkedName>();
    // what stands last in a selector is what gets the look
    eachSelector(sheet.rules, (selector) => {
      for (const name of namesIn(selector, selector.compounds.length - 1)) names.add(name);
    });
    this.told.set(path, names);
  }

  page(page: CheckedPage): void {
    const reached = new Set<string>();
    for (const { target, problem } of page.survey.sources)
      if (target !== undefined && problem === undefined) reached.add(target);
    for (const source of page.sources.sheets) {
      if (source.kind !== 'linked' || source.target.kind !== 'site') continue;
      // a link that fails, or waits to be chosen, is told of elsewhere
      const meant = fileMeantBy(source.target.path, this.context);
      if (meant !== undefined) reached.add(meant);
    }
    const own = new Set<MarkedName>();
    for (const block of page.blocks)
      eachSelector(block.sheet.rules, (selector) => namesIn(selector).forEach((n) => own.add(n)));
    this.pages.push({ page: page.path, reached, own, marks: page.marks });
  }

  merge(page: NotReached): void {
    this.pages.push(...page.pages);
  }

  /** The one linked sheet that tells a name, if pages beside this one link it: names of pages elsewhere need not mean the same. */
  private tellerOf(name: MarkedName, page: string, survey: CheckedSite['survey']): string | undefined {
    const tellers = survey.sheets.filter((s) => s.pages.length > 0 && this.told.get(s.path)?.has(name));
    const [only] = tellers;
    return tellers.length === 1 && only!.pages.some((other) => folderOf(other) === folderOf(page))
      ? only!.path
      : undefined;
  }

  findings({ survey }: CheckedSite): readonly FoundFinding[] {
    const groups = new Map<string, { group: FindingGroup; names: Set<MarkedName> }>();
    for (const { page, reached, own, marks } of this.pages) {
      const here = new Set([...reached].flatMap((path) => [...(this.told.get(path) ?? [])]));
      const missing = new Map<string, MarkedName[]>();
      for (const name of marks.names) {
        if (own.has(name)) continue;
        const teller = here.has(name) ? undefined : this.tellerOf(name, page, survey);
        if (teller !== undefined) missing.set(teller, [...(missing.get(teller) ?? []), name]);
      }
      if (missing.size === 0) continue;
      const opened = openPage(this.context.site.files.get(page)!)!;
      for (const [path, list] of missing) {
        let known = groups.get(path);
        if (!known) groups.set(path, (known = { group: new FindingGroup(path).aboutSheet(path), names: new Set() }));
        for (const name of list) known.names.add(name);
        known.group.page(page).at(opened, marks.startOf(list[0]!)!);
        const edit = insertLink(readingOf(opened.file, opened.tree)!, path, 'before-blocks');
        if (edit) known.group.mend(page, edit);
      }
    }
    return [...groups.values()].map(({ group, names }) => {
      const n = group.pages.length;
      const sentence = `${pagesInWords(group.pages)} ${verb(n, 'use', 'uses')} ${namesInWords([...names])}, whose rules are in ${code(nameOf(group.subject))}; ${verb(n, 'they do', 'it does')} not link it`;
      return group.finding('rule-not-reached', sentence, { mend: 'Link it' });
    });
  }
}
