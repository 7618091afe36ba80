import type { PageSet } from '../pageSet.ts';

/** A rule, or several, for some of the pages that link the sheet: all of `pages`, none of `without`; on others it does nothing. */
export interface PageNeed {
  readonly pages: PageSet;
  readonly without: PageSet;
  /** The rule asks for the root element: what is on `body` does not serve. */
  readonly root: boolean;
}

/** A name that `body` or the root has on some pages already, or, `around`, elements that enclose all a rule means. */
export interface NameThere {
  readonly selector: string;
  readonly on: 'body' | 'root' | 'around';
  readonly pages: PageSet;
}

/** Pages that get a class. */
export interface MarkedPages {
  readonly pages: PageSet;
}

/** How a need is met: by a name that is there, by having one of some marks, or by not having a mark. */
export type Scope =
  | { readonly kind: 'there'; readonly name: NameThere }
  | { readonly kind: 'any'; readonly marks: readonly MarkedPages[] }
  | { readonly kind: 'not'; readonly mark: MarkedPages };

/** Pages a mark is on, and pages it must not be on. */
interface Growing extends MarkedPages {
  readonly pages: PageSet;
  readonly never: PageSet;
}

const mostInUnion = 3;

/**
 * Few marks that tell all needs' pages apart: names that are there first, then the marks that other needs made, then a new one, on
 * the pages or, where that is less, on those without. Small needs go first: larger ones are often made of them.
 * `unmarkable`: pages that can get no class. Undefined for a need that cannot be met.
 */
export function chooseMarks(
  needs: readonly PageNeed[],
  there: readonly NameThere[],
  unmarkable: PageSet,
): readonly (Scope | undefined)[] {
  const scopes = new Map<string, Scope | undefined>();
  const marks: Growing[] = [];
  const bySize = [...needs].sort((a, b) => a.pages.size - b.pages.size);
  for (const need of bySize) {
    const key = keyOf(need);
    if (!scopes.has(key)) scopes.set(key, scopeFor(need, there, unmarkable, marks));
  }
  return needs.map((need) => scopes.get(keyOf(need)));
}

/** Equal for needs that one scope meets. */
export const keyOf = ({ pages, without, root }: PageNeed): string => `${pages.key}/${without.key}/${root}`;

function scopeFor(
  need: PageNeed,
  there: readonly NameThere[],
  unmarkable: PageSet,
  marks: Growing[],
): Scope | undefined {
  const name = there.find(
    ({ pages, on }) => (on === 'root' || !need.root) && need.pages.isIn(pages) && !pages.meets(need.without),
  );
  if (name) return { kind: 'there', name };
  const canHave = !need.pages.meets(unmarkable);
  const canLack = !need.without.meets(unmarkable);
  const has = canHave ? bestOf(marks, need.pages, need.without) : undefined;
  if (has) {
    grow(has, need.pages, need.without);
    return { kind: 'any', marks: [has] };
  }
  const lacks = canLack ? bestOf(marks, need.without, need.pages) : undefined;
  if (lacks) {
    grow(lacks, need.without, need.pages);
    return { kind: 'not', mark: lacks };
  }
  const union = unionOf(marks, need);
  if (union) return { kind: 'any', marks: union };
  if (!canHave && !canLack) return undefined;
  const lessWithout = canLack && (!canHave || need.without.size < need.pages.size);
  const made: Growing = lessWithout
    ? { pages: need.without.copy(), never: need.pages.copy() }
    : { pages: need.pages.copy(), never: need.without.copy() };
  marks.push(made);
  return lessWithout ? { kind: 'not', mark: made } : { kind: 'any', marks: [made] };
}

/** Of the marks that may be on all of these pages and on none of those, the one on most of them: it has to be much the same set. */
function bestOf(marks: readonly Growing[], on: PageSet, never: PageSet): Growing | undefined {
  let best: Growing | undefined;
  let most = 0;
  for (const mark of marks) {
    if (mark.pages.meets(never) || mark.never.meets(on)) continue;
    const both = mark.pages.and(on).size;
    if (both * 2 < Math.max(mark.pages.size, on.size) || both <= most) continue;
    [best, most] = [mark, both];
  }
  return best;
}

function grow(mark: Growing, on: PageSet, never: PageSet): void {
  mark.pages.addAll(on);
  mark.never.addAll(never);
}

/** Few marks that together are on all pages of a need and on none without. */
function unionOf(marks: readonly Growing[], { pages, without }: PageNeed): readonly Growing[] | undefined {
  let rest = pages;
  const out: Growing[] = [];
  const useful = marks.filter((mark) => !mark.pages.meets(without));
  while (!rest.isEmpty && out.length < mostInUnion) {
    let best: Growing | undefined;
    let most = 0;
    for (const mark of useful) {
      const covered = mark.pages.and(rest).size;
      if (covered > most) [best, most] = [mark, covered];
    }
    if (!best) return undefined;
    out.push(best);
    rest = rest.minus(best.pages);
  }
  if (!rest.isEmpty) return undefined;
  // what a page comes to have later would reach pages it was not on
  for (const mark of out) mark.never.addAll(without);
  return out;
}
