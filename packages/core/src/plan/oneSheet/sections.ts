import { folderOf } from '../../source/sitePath.ts';

/** A rule on its way into the sheet. */
export interface Placed {
  /** Pages it is for. */
  readonly pages: readonly string[];
  /** The marks its selector asks for, if any. */
  readonly marks: readonly string[];
  /** Nodes that must stand before it. */
  readonly before: readonly number[];
}

export interface Sections {
  /** Rules by number, in the order they are written. */
  readonly order: readonly number[];
  /** By rule, the heading it stands under; undefined for what all pages share. */
  readonly headings: readonly (string | undefined)[];
}

/**
 * The sheet as a person looks for things: what many pages share first, in the order of `first`; then what is for a folder, some
 * pages, one page, each under its heading. Where a rule must stand behind one of a later part, that one comes earlier.
 */
export function inSections(rules: readonly Placed[], first: readonly number[], linking: readonly string[]): Sections {
  const headings = rules.map((rule) => headingOf(rule, linking));
  const sizes = new Map<string | undefined, number>();
  rules.forEach(({ pages }, i) => sizes.set(headings[i], Math.max(sizes.get(headings[i]) ?? 0, pages.length)));
  const firstAt = new Map<string | undefined, number>();
  first.forEach((rule, at) => {
    if (!firstAt.has(headings[rule])) firstAt.set(headings[rule], at);
  });
  const place = new Map(first.map((rule, at) => [rule, at]));
  const rank = (rule: number): number => (headings[rule] === undefined ? Infinity : sizes.get(headings[rule])!);
  const wanted = [...first].sort(
    (a, b) =>
      (rank(a) === rank(b) ? 0 : rank(b) - rank(a)) ||
      firstAt.get(headings[a])! - firstAt.get(headings[b])! ||
      place.get(a)! - place.get(b)!,
  );
  return { order: withThoseBefore(wanted, rules), headings };
}

/** Each rule behind those that must stand before it. */
function withThoseBefore(wanted: readonly number[], rules: readonly Placed[]): readonly number[] {
  const rank = new Map(wanted.map((rule, at) => [rule, at]));
  const order: number[] = [];
  const seen = new Set<number>();
  for (const start of wanted) {
    const work = [{ rule: start, done: false }];
    while (work.length > 0) {
      const { rule, done } = work.pop()!;
      if (done) order.push(rule);
      if (done || seen.has(rule)) continue;
      seen.add(rule);
      work.push({ rule, done: true });
      const needed = rules[rule]!.before.filter((one) => !seen.has(one)).sort((a, b) => rank.get(b)! - rank.get(a)!);
      for (const one of needed) work.push({ rule: one, done: false });
    }
  }
  return order;
}

/** One page by its path, a folder by its name, other pages by the mark they have; nothing for what is all over the site. */
function headingOf({ pages, marks }: Placed, linking: readonly string[]): string | undefined {
  if (linking.length === 1) return undefined;
  if (pages.length === 1) return pages[0];
  const folder = folderOf(pages[0]!);
  if (
    folder !== '' &&
    pages.every((page) => page.startsWith(folder)) &&
    linking.some((page) => !page.startsWith(folder))
  )
    return folder;
  return marks.length > 0 ? marks.join(', ') : undefined;
}
