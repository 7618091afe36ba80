/** Gives equal texts equal small numbers, so that what is compared often is compared as numbers. */
export class Interner {
  private readonly numbers = new Map<string, number>();
  private readonly texts: string[] = [];

  number(text: string): number {
    let known = this.numbers.get(text);
    if (known === undefined) {
      known = this.texts.length;
      this.numbers.set(text, known);
      this.texts.push(text);
    }
    return known;
  }

  /** The number of a text that has one. */
  find(text: string): number | undefined {
    return this.numbers.get(text);
  }

  get size(): number {
    return this.texts.length;
  }

  text(number: number): string {
    return this.texts[number]!;
  }
}
