import { attributeOf } from '../page/nodes.ts';
import { printReference, urlReferences } from '../sheet/urlReferences.ts';
import type { UrlReference } from '../sheet/sheet.ts';
import type { LineIndex } from '../source/span.ts';
import { resolveReference, siteBase, type Base } from '../values/urls.ts';
import type { Check, CheckContext, CheckedPage, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { FindingGroups, type FindingGroup } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { fileMeantBy, referenceTo } from './retarget.ts';
import { code, nameOf, pagesInWords } from './words.ts';

interface Found {
  readonly reference: string;
  readonly meant: string | undefined;
  /** It would be right if counted from the site's top folder, as a page there counts. */
  readonly fromPages: boolean;
}

/** `url(…)` in sheets, blocks and style attributes that leads to no file: often still counted from the page it was moved out of. */
export const references: CheckMaker = {
  kinds: ['reference-missing', 'reference-wrong-case'],
  make: (context) => new References(context),
};

const mayRefer = /url\(|src\(|image-set\(/i;

class References implements Check {
  private readonly missing = new FindingGroups();
  private readonly otherCase = new FindingGroups();
  private readonly found = new Map<FindingGroup, Found>();
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  sheet(sheet: CheckedSheet): void {
    if (!mayRefer.test(sheet.text)) return;
    const imports = sheet.sheet.rules.filter((r) => r.kind === 'import').map((r) => r.span);
    for (const one of urlReferences(sheet.text))
      if (!imports.some((s) => one.span.start >= s.start && one.span.end <= s.end))
        this.reference(one, siteBase(sheet.path), sheet);
  }

  page(page: CheckedPage): void {
    for (const { source, sheet, base } of page.blocks) {
      const { start, end } = source.contents;
      if (source.foreign || source.idle !== undefined || !mayRefer.test(page.text.slice(start, end))) continue;
      const imports = sheet.rules.filter((r) => r.kind === 'import').map((r) => r.span);
      for (const one of urlReferences(page.text, start, end))
        if (!imports.some((s) => one.span.start >= s.start && one.span.end <= s.end)) this.reference(one, base, page);
    }
    for (const element of page.tree.elements) {
      const value = attributeOf(element, 'style');
      if (value === undefined || !mayRefer.test(value)) continue;
      for (const one of urlReferences(value))
        this.look(one.reference, page.sources.base, page.path)?.page(page.path).at(page, element.start);
    }
  }

  private reference(one: UrlReference, base: Base, holder: { path: string; text: string; lines: LineIndex }): void {
    const group = this.look(one.reference, base, holder.path);
    if (!group) return;
    if (this.context.site.files.get(holder.path)?.kind === 'page') group.page(holder.path);
    group.at(holder, one.span.start);
    const { meant } = this.found.get(group)!;
    const right = meant === undefined ? undefined : referenceTo(meant, base, one.reference);
    const written = holder.text.slice(one.span.start, one.span.end);
    if (right !== undefined) group.mend(holder.path, { span: one.span, text: printReference(right, written) });
  }

  private look(reference: string, base: Base, path: string): FindingGroup | undefined {
    const target = resolveReference(reference, base);
    const { site, pathOfLowerCase } = this.context;
    if (target.kind !== 'site' || target.path.endsWith('/') || site.files.has(target.path)) return undefined;
    const otherCase = pathOfLowerCase.has(target.path.toLowerCase());
    const isSheet = site.files.get(path)?.kind === 'sheet';
    const group = (otherCase ? this.otherCase : this.missing).about(
      isSheet ? `${target.path} in ${path}` : target.path,
    );
    if (!this.found.has(group)) {
      const fromTop = resolveReference(reference, siteBase('index.html'));
      const fromPages = isSheet && fromTop.kind === 'site' && site.files.has(fromTop.path);
      const meant = fromPages ? fromTop.path : fileMeantBy(target.path, this.context);
      this.found.set(group, { reference, meant, fromPages });
    }
    return group;
  }

  merge(page: References): void {
    const found = (mine: FindingGroup, theirs: FindingGroup): void => {
      if (!this.found.has(mine)) this.found.set(mine, page.found.get(theirs)!);
    };
    this.missing.merge(page.missing, found);
    this.otherCase.merge(page.otherCase, found);
  }

  findings({ survey }: CheckedSite): readonly FoundFinding[] {
    const say = (group: FindingGroup, kind: 'reference-missing' | 'reference-wrong-case'): FoundFinding => {
      const { reference, meant, fromPages } = this.found.get(group)!;
      const holder = group.places[0]!.path;
      const inSheet = this.context.site.files.get(holder)?.kind === 'sheet';
      if (inSheet) for (const page of survey.sheets.find((s) => s.path === holder)?.pages ?? []) group.page(page);
      const who = inSheet ? code(nameOf(holder)) : pagesInWords(group.pages);
      const why = fromPages
        ? 'counted from the pages’ folder; from the sheet’s there is no such file'
        : kind === 'reference-wrong-case'
          ? `but the file is ${code(meant!)}, another name on most servers`
          : meant === undefined
            ? 'and there is no such file'
            : `and there is no such file; ${code(meant)} is there`;
      return group.finding(
        kind,
        `${who} ${inSheet || group.pages.length === 1 ? 'asks' : 'ask'} for ${code(`url(${reference})`)}, ${why}`,
        { mend: 'Correct the path', look: 'See it' },
      );
    };
    return [
      ...this.missing.all.map((g) => say(g, 'reference-missing')),
      ...this.otherCase.all.map((g) => say(g, 'reference-wrong-case')),
    ];
  }
}
