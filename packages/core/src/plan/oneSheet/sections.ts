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
  const wide = [...sizes.keys()].sort((a, b) => sizes.get(b)! - sizes.get(a)! || firstAt.get(a)! - firstAt.get(b)!);
  const rank = new Map(sectionOrder(wide, rules, headings).map((heading, at) => [heading, at]));
  const wanted = [...first].sort(
    (a, b) => rank.get(headings[a])! - rank.get(headings[b])! || place.get(a)! - place.get(b)!,
  );
  return { order: withThoseBefore(wanted, rules), headings };
}

/** What all pages share first; then the widest first, each behind those that hold what must stand before its rules, as far as that goes. */
function sectionOrder(
  wide: readonly (string | undefined)[],
  rules: readonly Placed[],
  headings: readonly (string | undefined)[],
): readonly (string | undefined)[] {
  const waits = new Map<string | undefined, Set<string | undefined>>(wide.map((heading) => [heading, new Set()]));
  rules.forEach(({ before }, i) => {
    for (const one of before)
      if (headings[one] !== headings[i] && headings[one] !== undefined) waits.get(headings[i])!.add(headings[one]);
  });
  const out: (string | undefined)[] = wide.includes(undefined) ? [undefined] : [];
  const rest = wide.filter((heading) => heading !== undefined);
  while (rest.length > 0) {
    const free = rest.findIndex((heading) => [...waits.get(heading)!].every((one) => out.includes(one)));
    out.push(rest.splice(Math.max(free, 0), 1)[0]);
  }
  return out;
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

const mostNamed = 3;

/** One page by its path, a folder by its name, other pages by the mark they have; nothing for what is all over the site. */
function headingOf({ pages, marks }: Placed, linking: readonly string[]): string | undefined {
  // what most pages have is looked for at the top
  if (linking.length === 1 || pages.length * 2 > linking.length) return undefined;
  if (pages.length === 1) return pages[0];
  const folder = folderOf(pages[0]!);
  if (
    folder !== '' &&
    pages.every((page) => page.startsWith(folder)) &&
    linking.some((page) => !page.startsWith(folder))
  )
    return folder;
  if (marks.length === 0) return undefined;
  const named = pages.length <= mostNamed ? pages : pages.slice(0, mostNamed - 1);
  const more = pages.length - named.length;
  return `${marks.join(', ')}: ${named.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}
