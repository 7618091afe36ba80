import { readingOf } from '../survey/pageReading.ts';
import { insertLink } from '../survey/insertLink.ts';
import type { Check, CheckContext, CheckedPage, CheckMaker } from './check.ts';
import { FindingGroup } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { folderOf } from '../source/sitePath.ts';
import { openPage } from '../survey/openPage.ts';
import { fileMeantBy } from './retarget.ts';
import { code, count, hasBody, pagesInWords, verb } from './words.ts';

interface Candidate {
  readonly page: string;
  /** Sheets it reaches or tries to reach, with their number among the page's sheets. */
  readonly sheets: ReadonlyMap<string, number>;
}

/** A sheet that all pages but a few reach: those were forgotten. Of the whole site, or of one folder. */
export const forgottenLinks: CheckMaker = {
  kinds: ['page-without-link'],
  make: (context) => new ForgottenLinks(context),
};

class ForgottenLinks implements Check {
  private readonly pages: Candidate[] = [];
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  page(page: CheckedPage): void {
    if (!hasBody(page)) return;
    const sheets = new Map<string, number>();
    for (const source of page.survey.sources) {
      if (source.target === undefined) continue;
      if (source.problem === undefined && !sheets.has(source.target)) sheets.set(source.target, sheets.size);
    }
    for (const source of page.sources.sheets) {
      if (source.kind !== 'linked' || source.target.kind !== 'site') continue;
      // a link that fails is told of elsewhere
      const meant = fileMeantBy(source.target.path, this.context);
      if (meant !== undefined && !sheets.has(meant)) sheets.set(meant, sheets.size);
    }
    this.pages.push({ page: page.path, sheets });
  }

  merge(page: ForgottenLinks): void {
    this.pages.push(...page.pages);
  }

  findings(): readonly FoundFinding[] {
    const paths = [...this.context.site.files.values()].filter((f) => f.kind === 'sheet').map((f) => f.path);
    return paths.flatMap((sheet) => {
      const whole = this.forgotten(sheet, this.pages);
      if (whole) return [whole];
      const folders = new Set(this.pages.map((p) => folderOf(p.page)));
      return [...folders].flatMap((folder) => {
        const inside = this.pages.filter((p) => folderOf(p.page) === folder);
        const found = inside.length < this.pages.length ? this.forgotten(sheet, inside, folder) : undefined;
        return found ? [found] : [];
      });
    });
  }

  private forgotten(sheet: string, pages: readonly Candidate[], folder?: string): FoundFinding | undefined {
    const having = pages.filter((p) => p.sheets.has(sheet));
    const leftOut = this.context.site.leftOut?.get(sheet);
    const lacking = pages.filter((p) => !p.sheets.has(sheet) && !leftOut?.has(p.page));
    const most = folder === undefined ? Math.max(1, Math.floor(pages.length / 8)) : 1;
    if (lacking.length === 0 || lacking.length > most || having.length < Math.max(2, lacking.length * 2))
      return undefined;
    const first = having.filter((p) => p.sheets.get(sheet) === 0).length * 2 > having.length;
    const group = new FindingGroup(folder === undefined ? sheet : `${sheet} in ${folder}`).aboutSheet(sheet);
    for (const { page: path } of lacking) {
      const page = openPage(this.context.site.files.get(path)!)!;
      group.page(path).at(page, page.tree.elements.find((e) => e.tag === 'head')?.start ?? 0);
      const edit = insertLink(readingOf(page.file, page.tree)!, sheet, first ? 'first' : 'before-blocks');
      if (edit) group.mend(path, edit);
    }
    const rest = `the other ${count(having.length, 'page')}${folder === undefined ? '' : ` in ${code(folder || './')}`} ${verb(having.length, 'do', 'does')}`;
    const sentence = `${pagesInWords(group.pages)} ${verb(lacking.length, 'do', 'does')} not link ${code(sheet)}; ${rest}`;
    return group.finding('page-without-link', sentence, { mend: 'Link it' });
  }
}
