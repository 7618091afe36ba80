import { attributeOf } from '../page/nodes.ts';
import { textContent } from '../page/parsePage.ts';
import { declarationValidity } from '../values/declarationValidity.ts';
import type { Check, CheckContext, CheckedPage, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { eachRuleOfSheet } from './eachRule.ts';
import { FindingGroup, FindingGroups } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { asciiText } from '../source/asciiBytes.ts';
import { resolveReference } from '../values/urls.ts';
import { code, list, pagesInWords, verb } from './words.ts';

/** What makes a page read styling its own way: quirks mode, scripts that touch style, marks of a template inside styling. */
export const pageKinds: CheckMaker = {
  kinds: ['quirks-page', 'script-style', 'template-in-style'],
  make: (context) => new PageKinds(context),
};

class PageKinds implements Check {
  private readonly quirks = new FindingGroup('quirks');
  private readonly scripts = new FindingGroups();
  private readonly templates = new FindingGroups();
  private readonly quirkyIn = new Map<string, string>();
  private standard = 0;
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  sheet(sheet: CheckedSheet): void {
    eachRuleOfSheet(sheet, (declarations) => {
      for (const { property, value } of declarations)
        if (declarationValidity(property, value) === 'quirks') this.quirkyIn.set(sheet.path, `${property}: ${value}`);
    });
  }

  page(page: CheckedPage): void {
    if (page.tree.mode !== 'quirks') this.standard++;
    else this.quirks.page(page.path).at(page, 0);
    for (const element of page.tree.elements) {
      if (element.tag !== 'script') continue;
      const reference = attributeOf(element, 'src');
      const target = reference === undefined ? undefined : resolveReference(reference, page.sources.base);
      const file = target?.kind === 'site' ? this.context.site.files.get(target.path) : undefined;
      const text = file ? asciiText(file.bytes) : textContent(element);
      if (touchesStyle.test(text))
        this.scripts
          .about(file?.path ?? 'scripts in pages')
          .page(page.path)
          .at(page, element.start);
    }
    for (const { source } of page.blocks)
      this.template(page, source.contents.start, page.text.slice(source.contents.start, source.contents.end));
    for (const source of page.sources.sheets)
      this.template(page, source.span.start, page.text.slice(source.element.start, source.element.startTagEnd));
    for (const element of page.tree.elements) {
      const style = attributeOf(element, 'style');
      if (style !== undefined) this.template(page, element.start, style);
    }
  }

  private template(page: CheckedPage, start: number, text: string): void {
    const found = mark.exec(text);
    if (found)
      this.templates
        .about(found[0].replace(/\s.*/s, ''))
        .page(page.path)
        .at(page, start + (text.startsWith('<') ? 0 : found.index));
  }

  merge(page: PageKinds): void {
    this.quirks.merge(page.quirks);
    this.scripts.merge(page.scripts);
    this.templates.merge(page.templates);
    this.standard += page.standard;
  }

  findings({ survey }: CheckedSite): readonly FoundFinding[] {
    return [...this.quirky(survey), ...this.scripts.all.map(scriptFinding), ...this.templates.all.map(templateFinding)];
  }

  /** Where most pages are in standards mode and share a sheet with one that is not. */
  private quirky({ sheets }: CheckedSite['survey']): readonly FoundFinding[] {
    const { pages } = this.quirks;
    if (pages.length === 0 || this.standard <= pages.length) return [];
    const shared = sheets.filter(
      (s) => s.pages.some((p) => pages.includes(p)) && s.pages.some((p) => !pages.includes(p)),
    );
    const differing = shared.find((s) => this.quirkyIn.has(s.path));
    const what = differing
      ? `: ${code(differing.path)} says ${code(this.quirkyIn.get(differing.path)!)}, which counts only there`
      : ': class names ignore case there, and tables do not take the font of the page';
    return [
      this.quirks.finding(
        'quirks-page',
        `${pagesInWords(pages)} ${verb(pages.length, 'have', 'has')} no doctype a browser trusts, so shared rules can read differently${what}`,
        { look: 'See the page' },
        shared.length > 0 ? 'wrong' : 'note',
      ),
    ];
  }
}

const touchesStyle =
  /\.style\b|\bclassName\b|\bclassList\b|getComputedStyle|insertRule|addRule\b|adoptedStyleSheets|styleSheets\b|setAttribute\(\s*["'](?:style|class)["']|document\.write\([^)]*<(?:style|link)/;

/** Server-side includes, PHP, and the marks of template languages. */
const mark = /<\?(?!xml)\w*|<%|<!--#|\{\{|\{%|\$\{/;

function scriptFinding(group: FindingGroup): FoundFinding {
  const n = group.pages.length;
  const file =
    group.subject === 'scripts in pages'
      ? list([`${verb(n, 'Scripts', 'A script')} on ${pagesInWords(group.pages)}`])
      : `${code(group.subject)}, run by ${pagesInWords(group.pages)},`;
  return group.finding(
    'script-style',
    `${file} ${group.subject === 'scripts in pages' ? verb(n, 'read or set', 'reads or sets') : 'reads or sets'} styles; what a script does is outside the proof`,
    { look: 'See it' },
  );
}

const templateFinding = (group: FindingGroup): FoundFinding =>
  group.finding(
    'template-in-style',
    `${pagesInWords(group.pages)} ${verb(group.pages.length, 'have', 'has')} ${code(group.subject)} inside styling: a server writes something there, so it stays byte for byte`,
    { look: 'See it' },
  );
