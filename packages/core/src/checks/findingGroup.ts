import type { Edit, LineIndex } from '../source/span.ts';
import {
  severityOf,
  type FindingAction,
  type FindingKind,
  type FindingPlace,
  type FoundFinding,
  type Mend,
  type Severity,
} from './finding.ts';

/** What was found about one subject, over files. */
export class FindingGroup {
  readonly subject: string;
  /** The sheet it is about, for findings about links. */
  sheet: string | undefined;
  readonly pages: string[] = [];
  readonly places: FindingPlace[] = [];
  private edits: Map<string, Edit[]> | undefined;

  constructor(subject: string) {
    this.subject = subject;
  }

  /** One more place; only the first one of a file is kept. */
  at({ path, lines }: { readonly path: string; readonly lines: LineIndex }, start: number): this {
    if (this.places.at(-1)?.path !== path) this.places.push({ path, ...lines.placeOf(Math.max(start, 0)) });
    return this;
  }

  aboutSheet(path: string | undefined): this {
    this.sheet = path;
    return this;
  }

  page(path: string): this {
    if (this.pages.at(-1) !== path) this.pages.push(path);
    return this;
  }

  mend(path: string, ...edits: readonly Edit[]): this {
    this.edits ??= new Map();
    const known = this.edits.get(path);
    if (known) known.push(...edits);
    else this.edits.set(path, [...edits]);
    return this;
  }

  /** What a group of one page says, after what is known so far. */
  merge(other: FindingGroup): this {
    if (other.sheet !== undefined) this.sheet = other.sheet;
    for (const path of other.pages) this.page(path);
    for (const place of other.places) if (this.places.at(-1)?.path !== place.path) this.places.push(place);
    for (const [path, edits] of other.edits ?? []) this.mend(path, ...edits);
    return this;
  }

  get mends(): readonly Mend[] {
    return [...(this.edits ?? [])].map(([path, edits]) => ({ path, edits }));
  }

  /** With a mend when there are edits for it, else something to look at. */
  finding(
    kind: FindingKind,
    sentence: string,
    labels: { readonly mend?: string; readonly look?: string; readonly family?: string; readonly asks?: string },
    severity: Severity = severityOf[kind],
  ): FoundFinding {
    const mends = labels.mend === undefined ? [] : this.mends;
    const action: FindingAction =
      labels.family !== undefined
        ? { does: 'compare', label: labels.look ?? 'Compare', family: labels.family }
        : mends.length > 0
          ? { does: 'mend', label: labels.mend!, ...(labels.asks === undefined ? {} : { asks: labels.asks }) }
          : { does: 'look', label: labels.look ?? 'Look at it' };
    const { pages, places, subject, sheet } = this;
    const about = sheet === undefined ? {} : { sheet };
    return { id: `${kind} ${subject}`, kind, severity, sentence, ...about, pages, places, action, mends };
  }
}

/** Groups by subject, in order of first appearance. Most checks find nothing on most pages: there is no map before there is a group. */
export class FindingGroups {
  private groups: Map<string, FindingGroup> | undefined;

  about(subject: string): FindingGroup {
    this.groups ??= new Map();
    let group = this.groups.get(subject);
    if (!group) this.groups.set(subject, (group = new FindingGroup(subject)));
    return group;
  }

  /** What groups of one page say, after what is known so far; `each` is told of every pair. */
  merge(other: FindingGroups, each?: (mine: FindingGroup, theirs: FindingGroup) => void): void {
    for (const theirs of other.all) {
      const mine = this.about(theirs.subject).merge(theirs);
      each?.(mine, theirs);
    }
  }

  get all(): readonly FindingGroup[] {
    return [...(this.groups?.values() ?? [])];
  }
}
