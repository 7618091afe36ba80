import type { Interner } from '../cascade/interner.ts';

/** Names that can be asked for and gone through. */
export interface SomeNames extends Iterable<string> {
  readonly size: number;
  has(name: string): boolean;
}

/** Names of one page, in the order given: as numbers of an interner, which take a fifth of what a set of them does. */
export class NameSet implements SomeNames {
  private readonly interner: Interner;
  private readonly numbers: Uint32Array;
  private readonly sorted: Uint32Array;

  constructor(interner: Interner, names: Iterable<string>) {
    this.interner = interner;
    const numbers = new Set<number>();
    for (const name of names) numbers.add(interner.number(name));
    this.numbers = Uint32Array.from(numbers);
    this.sorted = this.numbers.slice().sort();
  }

  get size(): number {
    return this.numbers.length;
  }

  has(name: string): boolean {
    const number = this.interner.find(name);
    return number !== undefined && holds(this.sorted, number);
  }

  /** Where it stands among these names; -1 for one that is not among them. */
  indexOf(name: string): number {
    const number = this.interner.find(name);
    return number === undefined ? -1 : this.numbers.indexOf(number);
  }

  /** These and others. */
  with(names: readonly string[]): NameSet {
    return names.every((name) => this.has(name)) ? this : new NameSet(this.interner, [...this, ...names]);
  }

  *[Symbol.iterator](): IterableIterator<string> {
    for (const number of this.numbers) yield this.interner.text(number);
  }
}

function holds(sorted: Uint32Array, number: number): boolean {
  let from = 0;
  for (let to = sorted.length; from < to;) {
    const middle = (from + to) >> 1;
    if (sorted[middle]! < number) from = middle + 1;
    else to = middle;
  }
  return sorted[from] === number;
}
