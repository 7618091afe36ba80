import type { Subject } from '../../operations/gather/compete.ts';
import type { SiteFile } from '../../source/site.ts';
import { skeletonOf, type ElementKind } from '../../survey/skeleton.ts';
import { PageSet } from '../pageSet.ts';

/** Tells whether some element of some page may be what two selectors mean, by its type, ID and classes. */
export class Meetings {
  private readonly kinds: readonly ElementKind[];
  private readonly matching = new Map<Subject, PageSet>();

  constructor(pages: readonly SiteFile[]) {
    const kinds = new Set<ElementKind>();
    for (const page of pages) for (const kind of skeletonOf(page).kinds) kinds.add(kind);
    this.kinds = [...kinds];
  }

  has(one: Subject, other: Subject): boolean {
    return this.numbers(one).meets(this.numbers(other));
  }

  /** The kinds of elements it may mean, by number. */
  private numbers(subject: Subject): PageSet {
    let set = this.matching.get(subject);
    if (set) return set;
    set = PageSet.empty(this.kinds.length);
    this.kinds.forEach((kind, i) => isOf(kind, subject) && set.add(i));
    this.matching.set(subject, set);
    return set;
  }
}

const isOf = (kind: ElementKind, { tag, id, classes }: Subject): boolean =>
  (tag === undefined || tag === kind.tag) &&
  (id === undefined || id === kind.id?.toLowerCase()) &&
  classes.every((name) => kind.classes.some((own) => own.toLowerCase() === name));
