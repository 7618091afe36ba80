import { lineEndOf } from '../source/lineEnds.ts';
import { indentationAt, wholeLines } from '../source/removal.ts';
import type { Edit, Span } from '../source/span.ts';
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

/** A comment that holds one link, and the page's sources, so that the link can take its place among them. */
interface HiddenLink {
  readonly page: CheckedPage['path'];
  readonly text: string;
  readonly tag: string;
  readonly comment: Span;
  readonly sources: readonly { readonly name: string; readonly span: Span }[];
}

class CommentedStyles implements Check {
  private readonly hidden = new FindingGroups();
  private readonly conditional = new FindingGroups();
  /** By sheet. */
  private readonly links = new Map<string, HiddenLink[]>();
  /** What its author wrote beside a tag. */
  private readonly notes = new Map<string, string>();
  /** How many pages have one sheet before another: `a\nb`; the empty name is the page's own blocks. */
  private readonly orders = new Map<string, number>();

  page(page: CheckedPage): void {
    const names = [...new Set(writtenSources(page).map(({ name }) => name))];
    names.forEach((before, i) => {
      for (const after of names.slice(i + 1)) add(this.orders, `${before}\n${after}`, 1);
    });
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

  private tag(page: CheckedPage, found: string, span: Span, tags: readonly string[]): void {
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
    const note = noteIn(page.text.slice(span.start, span.end), tags);
    if (note !== '' && !this.notes.has(group.subject)) this.notes.set(group.subject, note);
    if (tags.length > 1 || path === undefined) {
      if (found === tags[0]) group.mend(page.path, { span, text: takenOut(page.text, span, tags) });
      return;
    }
    const link = { page: page.path, text: page.text, tag: found, comment: span, sources: writtenSources(page) };
    this.links.set(path, [...(this.links.get(path) ?? []), link]);
  }

  merge(page: CommentedStyles): void {
    this.hidden.merge(page.hidden);
    for (const [sheet, links] of page.links) this.links.set(sheet, [...(this.links.get(sheet) ?? []), ...links]);
    for (const [subject, note] of page.notes) if (!this.notes.has(subject)) this.notes.set(subject, note);
    for (const [pair, times] of page.orders) add(this.orders, pair, times);
    this.conditional.merge(page.conditional);
  }

  /** The link where the other pages have it: before what follows it there, and before blocks. What the comment says besides stays. */
  private switchedOn(sheet: string, { text, tag, comment, sources }: HiddenLink): readonly Edit[] {
    const follows = (name: string): boolean => {
      const [first, last] = [`${sheet}\n${name}`, `${name}\n${sheet}`].map((pair) => this.orders.get(pair) ?? 0);
      return name === '' ? first! >= last! : first! > last!;
    };
    const next = sources.find(({ name }) => follows(name));
    const previous = sources
      .filter((source) => source !== next && (!next || source.span.start < next.span.start))
      .at(-1);
    const stands = (previous?.span.start ?? -1) < comment.start && comment.start < (next?.span.start ?? Infinity);
    if (stands) return [{ span: comment, text: takenOut(text, comment, [tag]) }];
    const note = noteIn(text.slice(comment.start, comment.end), [tag]);
    const gone =
      note === '' ? { span: wholeLines(text, comment), text: '' } : { span: comment, text: `<!-- ${note} -->` };
    const at = next ? next.span.start : previous!.span.end;
    const indent = indentationAt(text, next ? at : previous!.span.start);
    const line = lineEndOf(text) + indent;
    return [gone, { span: { start: at, end: at }, text: next ? tag + line : line + tag }];
  }

  findings(): readonly FoundFinding[] {
    for (const [sheet, links] of this.links)
      for (const link of links) this.hidden.about(sheet).mend(link.page, ...this.switchedOn(sheet, link));
    const hidden = this.hidden.all.map((group) => {
      const asks = this.notes.get(group.subject);
      const what = group.subject === '<style>' ? 'a block of rules' : code(group.subject);
      return group.finding(
        'link-in-comment',
        `${pagesInWords(group.pages)} ${verb(group.pages.length, 'have', 'has')} ${what} inside a comment, where it does nothing`,
        { mend: 'Remove it', ...(asks === undefined ? {} : { asks }) },
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

/** What a comment says beside its tags. */
function noteIn(comment: string, tags: readonly string[]): string {
  const inside = comment.replace(/^<!--/, '').replace(/--!?>$/, '');
  return tags
    .reduce((rest, one) => rest.replace(one, ''), inside)
    .replace(/\s+/g, ' ')
    .trim();
}

const add = (counts: Map<string, number>, key: string, times: number): void =>
  void counts.set(key, (counts.get(key) ?? 0) + times);

/** Sheets and blocks that stand in the page, by path; the empty name for blocks. */
const writtenSources = ({ sources }: CheckedPage): HiddenLink['sources'] =>
  sources.sheets.flatMap((source) => {
    if (source.span.start < 0) return [];
    if (source.kind === 'embedded') return source.foreign ? [] : [{ name: '', span: source.span }];
    return source.target.kind === 'site' ? [{ name: source.target.path, span: source.span }] : [];
  });

/** The tags of a comment in place of it; what else it says stays a comment before them. */
function takenOut(text: string, { start, end }: Span, tags: readonly string[]): string {
  const inside = text
    .slice(start, end)
    .replace(/^<!--/, '')
    .replace(/--!?>$/, '');
  const said = tags.reduce((rest, one) => rest.replace(one, ''), inside).trim();
  const newLine = lineEndOf(text) + indentationAt(text, start);
  return [...(said === '' ? [] : [`<!-- ${said} -->`]), ...tags].join(newLine);
}
