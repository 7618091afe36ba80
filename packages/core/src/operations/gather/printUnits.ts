import { indentationAt } from '../../source/removal.ts';
import { textOf } from '../../source/span.ts';
import type { PageReading, ReadBlock, ReadUnit } from '../../survey/pageReading.ts';
import type { PagePlan, TakenUnit } from './gatherPlan.ts';
import { dedented, indented, openGroups } from './printRule.ts';

interface Printed extends TakenUnit {
  readonly page: PageReading;
}

/** Rules in order, with the comments of their authors, each once, and a comment where the heading they stand under changes. */
export function printUnits(
  order: readonly string[],
  plans: readonly PagePlan[],
  lineEnd: string,
  sections: ReadonlyMap<string, string> = new Map(),
): string {
  const { firsts, comments } = collect(plans);
  let out = '';
  let groups = '';
  let inner: string[] = [];
  let from: unknown;
  let section: string | undefined;
  const said = new Set<string>();
  const flush = (): void => {
    for (const _ of inner) out += `}${lineEnd}`;
    inner = [];
    groups = '';
  };
  for (const key of order) {
    const first = firsts.get(key);
    if (!first || first.text === '') continue;
    const { page, text, unit, block } = first;
    const elsewhere = from !== undefined && from !== block;
    from = block;
    const own = [...comments.of(key), ...comments.of(unit.rule.family)].filter((c) => !said.has(folded(c)));
    for (const comment of own) said.add(folded(comment));
    const heading = sections.get(key);
    const opening = openGroups(unit.rule.groups);
    const starts = heading !== section && (heading !== undefined || out !== '');
    if (starts || opening.join('\n') !== groups) {
      flush();
      if (out !== '') out += lineEnd;
      if (starts && heading !== undefined) out += `/* ${heading} */${lineEnd}${lineEnd}`;
      section = heading;
      opening.forEach((line) => (out += line + lineEnd));
      inner = [...opening];
      groups = opening.join('\n');
    } else if (out !== '' && (elsewhere || own.length > 0 || hadGap(page.text, unit))) out += lineEnd;
    const lines = [
      ...own.map((c) => dedented(c, indentationAt(page.text, unit.lead), lineEnd)),
      dedented(text, indentationAt(page.text, unit.span.start), lineEnd),
    ];
    for (const line of lines) out += indented(line, '  '.repeat(opening.length), lineEnd) + lineEnd;
  }
  flush();
  return out;
}

/** By rule, its first copy and all comments on copies of it; those on copies that are not written, by family. */
function collect(plans: readonly PagePlan[]): { firsts: ReadonlyMap<string, Printed>; comments: Comments } {
  const firsts = new Map<string, Printed>();
  const comments = new Comments();
  for (const { page, taken } of plans)
    for (const one of taken) {
      const { key, unit, block, text } = one;
      if (!firsts.has(key)) firsts.set(key, { ...one, page });
      for (const comment of [...unit.comments, ...trailing(page, block, unit)])
        comments.add(text === '' ? unit.rule.family : key, comment);
    }
  return { firsts, comments };
}

class Comments {
  private readonly lists = new Map<string, string[]>();

  of(key: string): readonly string[] {
    return this.lists.get(key) ?? [];
  }

  add(key: string, comment: string): void {
    if (isLeftover(comment)) return;
    const list = this.lists.get(key);
    if (!list) this.lists.set(key, [comment]);
    else if (!list.some((one) => folded(one) === folded(comment))) list.push(comment);
  }
}

/** What hid a block from old programs: a sheet needs none of it. */
const isLeftover = (comment: string): boolean =>
  /^\/\*[\t\n\f\r ]*(<!\[CDATA\[|\]\]>|<!--|-->)?[\t\n\f\r ]*\*\/$/.test(comment);

/** Comments after the last rule of a block go with that rule. */
const trailing = (page: PageReading, block: ReadBlock, unit: ReadUnit): readonly string[] =>
  block.trailingComments.length > 0 && block.units.at(-1) === unit
    ? block.trailingComments.map((span) => textOf(page.text, span))
    : [];

const folded = (comment: string): string => comment.replace(/[\t\n\f\r ]+/g, ' ');

/** Whether the author left a blank line before the rule. */
const hadGap = (text: string, unit: ReadUnit): boolean =>
  /(\r\n|\n|\r(?!\n))[ \t]*(\r\n|\n|\r(?!\n))[ \t]*$/.test(text.slice(Math.max(0, unit.lead - 200), unit.lead));
