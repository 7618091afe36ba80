import { printReference, urlReferences } from '../sheet/urlReferences.ts';
import type { ImportRule } from '../sheet/sheet.ts';
import type { LineIndex } from '../source/span.ts';
import { resolveReference, siteBase, type Base } from '../values/urls.ts';
import type { Check, CheckContext, CheckedPage, CheckedSheet, CheckMaker } from './check.ts';
import { FindingGroups, type FindingGroup } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { attributeEdit, fileMeantBy, referenceTo } from './retarget.ts';
import { code, nameOf, pagesInWords, verb } from './words.ts';

interface Holder {
  readonly path: string;
  readonly text: string;
  readonly lines: LineIndex;
}

/** Links and imports that lead to no file, and those that differ from the file's name in capitals only. */
export const brokenLinks: CheckMaker = {
  kinds: ['link-missing', 'link-wrong-case'],
  make: (context) => new BrokenLinks(context),
};

class BrokenLinks implements Check {
  private readonly missing = new FindingGroups();
  private readonly otherCase = new FindingGroups();
  private readonly meant = new Map<FindingGroup, string>();
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  sheet(sheet: CheckedSheet): void {
    for (const rule of sheet.sheet.rules) if (rule.kind === 'import') this.import(rule, siteBase(sheet.path), sheet);
  }

  page(page: CheckedPage): void {
    const { sources, path } = page;
    for (const source of sources.sheets) {
      if (source.kind !== 'linked' || source.idle !== undefined || source.target.kind !== 'site') continue;
      const group = this.look(source.target.path);
      if (!group) continue;
      group.page(path).at(page, source.span.start);
      const meant = this.meant.get(group);
      const reference = meant === undefined ? undefined : referenceTo(meant, sources.base, source.reference);
      const edit = reference === undefined ? undefined : attributeEdit(page, source.element, 'href', reference);
      if (edit) group.mend(path, edit);
    }
    for (const block of page.blocks)
      for (const rule of block.sheet.rules)
        if (rule.kind === 'import' && block.source.idle === undefined) this.import(rule, block.base, page);
  }

  private import(rule: ImportRule, base: Base, holder: Holder): void {
    const target = resolveReference(rule.reference, base);
    const group = target.kind === 'site' ? this.look(target.path) : undefined;
    if (!group) return;
    if (this.context.site.files.get(holder.path)?.kind === 'page') group.page(holder.path);
    group.at(holder, rule.span.start);
    const meant = this.meant.get(group);
    const reference = meant === undefined ? undefined : referenceTo(meant, base, rule.reference);
    const written = urlReferences(holder.text, rule.span.start, rule.span.end)[0];
    if (reference === undefined || !written) return;
    const { start, end } = written.span;
    group.mend(holder.path, { span: written.span, text: printReference(reference, holder.text.slice(start, end)) });
  }

  /** The group for a path that is not there. */
  private look(path: string): FindingGroup | undefined {
    const { site, pathOfLowerCase } = this.context;
    if (site.files.has(path)) return undefined;
    const groups = pathOfLowerCase.has(path.toLowerCase()) ? this.otherCase : this.missing;
    const group = groups.about(path);
    const meant = fileMeantBy(path, this.context);
    group.aboutSheet(meant ?? path);
    if (meant !== undefined) this.meant.set(group, meant);
    return group;
  }

  merge(page: BrokenLinks): void {
    const meant = (mine: FindingGroup, theirs: FindingGroup): void => {
      const path = page.meant.get(theirs);
      if (path !== undefined) this.meant.set(mine, path);
    };
    this.missing.merge(page.missing, meant);
    this.otherCase.merge(page.otherCase, meant);
  }

  findings(): readonly FoundFinding[] {
    return [
      ...this.missing.all.map((group) => {
        const from = holders(group);
        const meant = this.meant.get(group);
        const rest = meant === undefined ? 'which is not there' : `which is not there; ${code(meant)} is`;
        return group.finding('link-missing', `${from} ${code(group.subject)}, ${rest}`, {
          mend: 'Correct the path',
          look: 'See the link',
        });
      }),
      ...this.otherCase.all.map((group) =>
        group.finding(
          'link-wrong-case',
          `${holders(group)} ${code(group.subject)}; the file is ${code(this.meant.get(group)!)}, another name on most servers`,
          { mend: 'Correct it' },
        ),
      ),
    ];
  }
}

function holders(group: FindingGroup): string {
  const paths = group.places.map((place) => place.path);
  const sheetsToo = paths.filter((path) => !group.pages.includes(path)).map((path) => code(nameOf(path)));
  const pages = group.pages.length === 0 ? [] : [pagesInWords(group.pages)];
  const names = [...pages, ...sheetsToo];
  return `${names.join(', ')} ${verb(group.pages.length + sheetsToo.length, 'link', 'links')}`;
}
