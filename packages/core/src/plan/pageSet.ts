/** Pages, or rules, by their number, as bits. */
export class PageSet implements Iterable<number> {
  private readonly words: Uint32Array;

  constructor(words: Uint32Array) {
    this.words = words;
  }

  static empty(pages: number): PageSet {
    return new PageSet(new Uint32Array(Math.ceil(pages / 32)));
  }

  copy(): PageSet {
    return new PageSet(this.words.slice());
  }

  add(page: number): void {
    this.words[page >>> 5]! |= 1 << (page & 31);
  }

  has(page: number): boolean {
    return (this.words[page >>> 5]! & (1 << (page & 31))) !== 0;
  }

  addAll(other: PageSet): void {
    for (let i = 0; i < this.words.length; i++) this.words[i]! |= other.words[i]!;
  }

  minus(other: PageSet): PageSet {
    const out = this.copy();
    for (let i = 0; i < out.words.length; i++) out.words[i]! &= ~other.words[i]!;
    return out;
  }

  /** The pages of this set that are not in `other`, and in `within` where it is given. */
  *beyond(other: PageSet, within?: PageSet): Iterable<number> {
    for (let i = 0; i < this.words.length; i++) {
      let word = this.words[i]! & ~other.words[i]!;
      if (within) word &= within.words[i]!;
      for (; word !== 0; word &= word - 1) yield i * 32 + 31 - Math.clz32(word & -word);
    }
  }

  and(other: PageSet): PageSet {
    const out = this.copy();
    for (let i = 0; i < out.words.length; i++) out.words[i]! &= other.words[i]!;
    return out;
  }

  /** Whether all pages of this set are in the other. */
  isIn(other: PageSet): boolean {
    for (let i = 0; i < this.words.length; i++) if ((this.words[i]! & ~other.words[i]!) !== 0) return false;
    return true;
  }

  get isEmpty(): boolean {
    return this.words.every((word) => word === 0);
  }

  meets(other: PageSet): boolean {
    for (let i = 0; i < this.words.length; i++) if ((this.words[i]! & other.words[i]!) !== 0) return true;
    return false;
  }

  get size(): number {
    let size = 0;
    for (let word of this.words) for (; word !== 0; word &= word - 1) size++;
    return size;
  }

  /** Equal for equal sets. */
  get key(): string {
    return this.words.join();
  }

  *[Symbol.iterator](): Iterator<number> {
    for (let i = 0; i < this.words.length; i++)
      for (let word = this.words[i]!; word !== 0; word &= word - 1) yield i * 32 + 31 - Math.clz32(word & -word);
  }
}
