import { lineEndOf } from '../source/lineEnds.ts';
import { indentationAt } from '../source/removal.ts';
import { resolveReference } from '../values/urls.ts';
import type { Check, CheckedPage, CheckMaker } from './check.ts';
import { FindingGroups } from './findingGroup.ts';
import type { FoundFinding } from './finding.ts';
import { code, pagesInWords, verb } from './words.ts';

const tag = /<link\b[^>]*>|<style\b[^>]*>[^]*?<\/style\s*>/gi;

/** Links and blocks inside comments: they look present and are not. Conditional comments are told apart. */
export const commentedStyles: CheckMaker = {
  kinds: ['link-in-comment', 'conditional-comment'],
  make: () => new CommentedStyles(),
};

class CommentedStyles implements Check {
  private readonly hidden = new FindingGroups();
  private readonly conditional = new FindingGroups();

  page(page: CheckedPage): void {
    for (const comment of page.tree.comments) {
      const { start, end } = comment;
      const written = page.text.slice(start, end);
      if (!written.startsWith('<!--')) continue;
      const tags = [...written.matchAll(tag)]
        .map((m) => m[0])
        .filter((t) => /^<style/i.test(t) || /\brel\s*=\s*["']?[^"'>]*stylesheet/i.test(t));
      if (tags.length === 0) continue;
      if (/^<!--\s*\[if\b/i.test(written)) {
        this.conditional.about('styles').page(page.path).at(page, start);
        continue;
      }
      for (const found of tags) this.tag(page, found, { start, end }, tags);
    }
  }

  private tag(page: CheckedPage, found: string, span: { start: number; end: number }, tags: readonly string[]): void {
    const href = /\bhref\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s>]+))/i.exec(found);
    const reference = href?.[1] ?? href?.[2] ?? href?.[3];
    const target = reference === undefined ? undefined : resolveReference(reference, page.sources.base);
    const path = target?.kind === 'site' ? target.path : undefined;
    // linked as well outside the comment: what is inside is only a leftover
    if (path !== undefined && page.survey.sources.some((s) => s.target === path && s.problem === undefined)) return;
    const group = this.hidden
      .about(path ?? reference ?? '<style>')
      .aboutSheet(path)
      .page(page.path)
      .at(page, span.start);
    if (found === tags[0]) group.mend(page.path, { span, text: takenOut(page.text, span, tags) });
  }

  merge(page: CommentedStyles): void {
    this.hidden.merge(page.hidden);
    this.conditional.merge(page.conditional);
  }

  findings(): readonly FoundFinding[] {
    const hidden = this.hidden.all.map((group) => {
      const what = group.subject === '<style>' ? 'a block of rules' : code(group.subject);
      return group.finding(
        'link-in-comment',
        `${pagesInWords(group.pages)} ${verb(group.pages.length, 'have', 'has')} ${what} inside a comment, where it does nothing`,
        { mend: 'Take it out' },
      );
    });
    const conditional = this.conditional.all.map((group) =>
      group.finding(
        'conditional-comment',
        `${pagesInWords(group.pages)} ${verb(group.pages.length, 'hold', 'holds')} styling in conditional comments, which today’s browsers pass over`,
        { look: 'See it' },
      ),
    );
    return [...hidden, ...conditional];
  }
}

/** The tags of a comment in place of it; what else it says stays a comment before them. */
function takenOut(text: string, { start, end }: { start: number; end: number }, tags: readonly string[]): string {
  const inside = text
    .slice(start, end)
    .replace(/^<!--/, '')
    .replace(/--!?>$/, '');
  const said = tags.reduce((rest, one) => rest.replace(one, ''), inside).trim();
  const newLine = lineEndOf(text) + indentationAt(text, start);
  return [...(said === '' ? [] : [`<!-- ${said} -->`]), ...tags].join(newLine);
}
