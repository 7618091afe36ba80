import type { Subject } from '../../operations/gather/compete.ts';
import type { PageReading } from '../../survey/pageReading.ts';
import { PageSet } from '../pageSet.ts';

interface Kind {
  readonly tag: string;
  readonly id: string;
  readonly classes: ReadonlySet<string>;
}

/** Tells whether some element of some page is what two selectors mean, by its type, ID and classes. */
export class Meetings {
  /** Undefined where some page does not tell. */
  private readonly kinds: readonly Kind[] | undefined;
  private readonly matching = new Map<Subject, PageSet>();

  constructor(readings: readonly (PageReading | undefined)[]) {
    const kinds = new Set<string>();
    for (const reading of readings) for (const kind of reading?.kinds ?? []) kinds.add(kind);
    this.kinds = readings.every((reading) => reading?.kinds) ? [...kinds].map(kindOf) : undefined;
  }

  /** True as well where that is not known. */
  has(one: Subject, other: Subject): boolean {
    return this.kinds === undefined || this.numbers(this.kinds, one).meets(this.numbers(this.kinds, other));
  }

  /** The kinds of elements it may mean, by number. */
  private numbers(kinds: readonly Kind[], subject: Subject): PageSet {
    let set = this.matching.get(subject);
    if (set) return set;
    set = PageSet.empty(kinds.length);
    kinds.forEach((kind, i) => isOf(kind, subject) && set!.add(i));
    this.matching.set(subject, set);
    return set;
  }
}

function kindOf(text: string): Kind {
  const [tag, id, classes] = text.split('\0');
  return { tag: tag!, id: id!, classes: new Set(classes!.split(' ')) };
}

const isOf = (kind: Kind, { tag, id, classes }: Subject): boolean =>
  (tag === undefined || tag === kind.tag) &&
  (id === undefined || id === kind.id) &&
  classes.every((name) => kind.classes.has(name));
