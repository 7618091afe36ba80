import type { LinkedSource } from '../page/styleSources.ts';
import { wholeLines } from '../source/removal.ts';
import type { Check, CheckContext, CheckedPage, CheckedSheet, CheckedSite, CheckMaker } from './check.ts';
import { FindingGroups } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { resolveReference, siteBase } from '../values/urls.ts';
import { code, pagesInWords, verb } from './words.ts';

/** Sheets linked twice, from the site root on some pages and from the page on others, from elsewhere, or through imports of imports. */
export const repeatedLinks: CheckMaker = {
  kinds: ['linked-twice', 'mixed-paths', 'remote-sheet', 'import-chain'],
  make: (context) => new RepeatedLinks(context),
};

class RepeatedLinks implements Check {
  private readonly twice = new FindingGroups();
  private readonly remote = new FindingGroups();
  private readonly styles = { root: new FindingGroups(), page: new FindingGroups() };
  private readonly imports = new FindingGroups();
  private readonly imported = new Map<string, readonly string[]>();
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  sheet({ path, sheet, lines }: CheckedSheet): void {
    const targets: string[] = [];
    for (const rule of sheet.rules) {
      if (rule.kind !== 'import') continue;
      const target = resolveReference(rule.reference, siteBase(path));
      if (target.kind === 'remote') this.remote.about(target.url).at({ path, lines }, rule.span.start);
      if (target.kind !== 'site' || !this.context.site.files.has(target.path)) continue;
      targets.push(target.path);
      this.imports.about(path).at({ path, lines }, rule.span.start);
    }
    this.imported.set(path, targets);
  }

  page(page: CheckedPage): void {
    const seen = new Map<string, LinkedSource>();
    for (const source of page.sources.sheets) {
      if (source.kind !== 'linked' || source.idle !== undefined) continue;
      const { target } = source;
      if (target.kind === 'remote') this.remote.about(target.url).page(page.path).at(page, source.span.start);
      if (target.kind !== 'site') continue;
      const rooted = /^\s*[\\/]/.test(source.reference);
      this.styles[rooted ? 'root' : 'page'].about(target.path).page(page.path).at(page, source.span.start);
      const key = `${target.path} ${source.media} ${source.title} ${source.alternate}`;
      const earlier = seen.get(key);
      seen.set(key, source);
      if (!earlier) continue;
      // of two equal links the later one decides the order
      const span = wholeLines(page.text, earlier.span);
      this.twice
        .about(target.path)
        .aboutSheet(target.path)
        .page(page.path)
        .at(page, source.span.start)
        .mend(page.path, { span, text: '' });
    }
  }

  merge(page: RepeatedLinks): void {
    this.twice.merge(page.twice);
    this.remote.merge(page.remote);
    this.styles.root.merge(page.styles.root);
    this.styles.page.merge(page.styles.page);
  }

  findings({ survey }: CheckedSite): readonly FoundFinding[] {
    const twice = this.twice.all.map((g) =>
      g.finding(
        'linked-twice',
        `${pagesInWords(g.pages)} ${verb(g.pages.length, 'link', 'links')} ${code(g.subject)} twice`,
        { mend: 'Take one out' },
      ),
    );
    const remote = this.remote.all.map((g) => {
      const who = g.pages.length > 0 ? pagesInWords(g.pages) : code(g.places[0]!.path);
      return g.finding(
        'remote-sheet',
        `${who} ${verb(Math.max(g.pages.length, 1), 'take', 'takes')} ${code(g.subject)} from another server; what it says is not known here`,
        { look: 'See the link' },
      );
    });
    return [...twice, ...remote, ...this.mixed(), ...this.chains(survey.sheets)];
  }

  private mixed(): readonly FoundFinding[] {
    return this.styles.root.all.flatMap((root) => {
      const relative = this.styles.page.all.find((g) => g.subject === root.subject);
      if (!relative) return [];
      const [few, many, how] =
        root.pages.length <= relative.pages.length
          ? [root, relative, 'from the site root']
          : [relative, root, 'from the page'];
      const sentence = `${pagesInWords(few.pages)} ${verb(few.pages.length, 'link', 'links')} ${code(root.subject)} ${how}, ${pagesInWords(many.pages)} the other way`;
      few.aboutSheet(few.subject);
      return [few.finding('mixed-paths', sentence, { look: 'See the link' })];
    });
  }

  /** A sheet that imports one that imports another: the browser learns of the last only after reading two. */
  private chains(sheets: CheckedSite['survey']['sheets']): readonly FoundFinding[] {
    return this.imports.all.flatMap((group) => {
      const middle = this.imported
        .get(group.subject)!
        .find((path) => (this.imported.get(path)?.length ?? 0) > 0 && path !== group.subject);
      if (middle === undefined) return [];
      const last = this.imported.get(middle)![0]!;
      for (const page of sheets.find((s) => s.path === group.subject)?.pages ?? []) group.page(page);
      const sentence = `${code(group.subject)} imports ${code(middle)}, which imports ${code(last)}: a browser asks for them one after the other`;
      return [group.finding('import-chain', sentence, { look: 'See the import' })];
    });
  }
}
