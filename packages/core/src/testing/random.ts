/** A small seeded generator (mulberry32, common practice): the same seed gives the same pages everywhere. */
export class Random {
  private state: number;

  constructor(seed: number) {
    this.state = Math.imul(seed, 0x9e3779b1) >>> 0;
  }

  next(): number {
    this.state = (this.state + 0x6d2b79f5) >>> 0;
    let t = this.state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }

  below(count: number): number {
    return Math.floor(this.next() * count);
  }

  chance(probability: number): boolean {
    return this.next() < probability;
  }

  pick<T>(list: readonly T[]): T {
    return list[this.below(list.length)]!;
  }

  times<T>(low: number, high: number, make: () => T): T[] {
    return Array.from({ length: low + this.below(high - low + 1) }, make);
  }
}
