import type { MatchedSelector } from '../cascade/indexedSelector.ts';
import { orderFlips } from './orderFlips.ts';
import type { ElementNode } from '../page/nodes.ts';
import type { LinkedSource } from '../page/styleSources.ts';
import { lineEndOf } from '../source/lineEnds.ts';
import { indentationAt, wholeLines } from '../source/removal.ts';
import { textOf, type Edit } from '../source/span.ts';
import type { Check, CheckedPage, CheckedSite, CheckMaker } from './check.ts';
import { FindingGroup } from './findingGroup.ts';
import type { FindingKind, FoundFinding } from './finding.ts';
import { isBaseline } from './isBaseline.ts';
import type { CheckContext } from './check.ts';
import { code, count, nameOf } from './words.ts';

interface Late {
  readonly page: string;
  /** The sheet that stands after what usually comes after it. */
  readonly sheet: string;
  /** Another sheet's path, or undefined for the page's own blocks. */
  readonly after: string | undefined;
  /** Rules of the other source that lose to it only because of the order. */
  readonly flips: ReadonlySet<number>;
  readonly group: FindingGroup;
}

/** Every pair of a page's sources is looked at: one with more of them is not judged. */
const mostSources = 100;

/** A link that stands, on this page, after sources that come after it on the others; only where that changes who wins. */
export const linkOrder: CheckMaker = {
  kinds: ['link-after-block', 'sheet-order', 'baseline-last'],
  make: (context) => new LinkOrder(context),
};

class LinkOrder implements Check {
  /** Pages by what stands before what: `a\nb`; the empty name is the page's own blocks. */
  private readonly orders = new Map<string, number>();
  private readonly late: Late[] = [];
  private pending: { readonly late: Late; readonly from: number; readonly to: number }[] = [];
  private readonly context: CheckContext;

  constructor(context: CheckContext) {
    this.context = context;
  }

  page(page: CheckedPage): void {
    this.keep();
    const sources = page.sources.sheets.map((source, index) => ({ source, index, name: nameOfSource(source) }));
    const known = sources.filter((s) => s.name !== undefined && s.source.idle === undefined);
    if (known.length > mostSources) return;
    for (const [i, b] of known.entries())
      for (const a of known.slice(0, i)) {
        if (a.name === b.name) continue;
        this.orders.set(`${a.name}\n${b.name}`, (this.orders.get(`${a.name}\n${b.name}`) ?? 0) + 1);
        if (b.name === '' || b.source.kind !== 'linked') continue;
        const group = new FindingGroup(`${b.name} on ${page.path}`)
          .aboutSheet(b.name)
          .page(page.path)
          .at(page, b.source.span.start);
        group.mend(
          page.path,
          ...moveBefore(page, b.source, a.name === '' ? a.source.span.start : known[0]!.source.span.start),
        );
        const late = {
          page: page.path,
          sheet: b.name!,
          after: a.name === '' ? undefined : a.name,
          flips: new Set<number>(),
          group,
        };
        this.pending.push({ late, from: a.index, to: b.index });
      }
  }

  element(_page: CheckedPage, _element: ElementNode, matched: readonly MatchedSelector[]): void {
    for (const { late, from, to } of this.pending) orderFlips(matched, from, to, late.flips as Set<number>);
  }

  /** Of the page looked at last, what flips a rule. */
  private keep(): void {
    this.late.push(...this.pending.map((p) => p.late).filter((late) => late.flips.size > 0));
    this.pending = [];
  }

  merge(page: LinkOrder): void {
    page.keep();
    for (const [pair, times] of page.orders) this.orders.set(pair, (this.orders.get(pair) ?? 0) + times);
    this.late.push(...page.late);
  }

  findings(_site: CheckedSite): readonly FoundFinding[] {
    this.keep();
    const told = new Set<string>();
    return this.late.flatMap((late) => {
      if (told.has(late.group.subject)) return [];
      const [there, here] = [`${late.sheet}\n${late.after ?? ''}`, `${late.after ?? ''}\n${late.sheet}`].map(
        (key) => this.orders.get(key) ?? 0,
      );
      const unusual = there! > here!;
      const baseline = late.after !== undefined && isBaseline(this.context.sheets.read(late.sheet)?.sheet);
      if (!unusual && !baseline) return [];
      told.add(late.group.subject);
      const kind: FindingKind =
        late.after === undefined ? 'link-after-block' : baseline ? 'baseline-last' : 'sheet-order';
      return [late.group.finding(kind, sentenceFor(late, kind, there!), { mend: 'Move the link' })];
    });
  }
}

function sentenceFor({ page, sheet, after, flips }: Late, kind: FindingKind, others: number): string {
  const flip = `${count(flips.size, 'rule')} ${flips.size === 1 ? 'flips' : 'flip'}`;
  if (kind === 'link-after-block') return `${code(nameOf(page))} links ${code(sheet)} after its own block; ${flip}`;
  const rest = others > 0 ? `; ${count(others, 'other page')} ${others === 1 ? 'has' : 'have'} it first` : '';
  const why = kind === 'baseline-last' ? ', a baseline that belongs first,' : '';
  return `${code(nameOf(page))} links ${code(sheet)}${why} after ${code(after!)}${rest}; ${flip}`;
}

/** A sheet's path; the empty name for embedded blocks; undefined for what cannot be read. */
function nameOfSource(source: CheckedPage['sources']['sheets'][number]): string | undefined {
  if (source.kind === 'embedded') return source.foreign ? undefined : '';
  return source.target.kind === 'site' && source.title === '' ? source.target.path : undefined;
}

function moveBefore(page: CheckedPage, link: LinkedSource, at: number): readonly Edit[] {
  const { text } = page;
  const tag = textOf(text, link.span);
  return [
    { span: { start: at, end: at }, text: tag + lineEndOf(text) + indentationAt(text, at) },
    { span: wholeLines(text, link.span), text: '' },
  ];
}
