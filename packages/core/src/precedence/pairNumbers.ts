/** Small numbers for pairs of numbers from -1 up; equal pairs share one. */
export class PairNumbers {
  private readonly numbers = new Map<number, number>();
  private firsts = new Int32Array(1024);
  private seconds = new Int32Array(1024);
  count = 0;

  number(first: number, second: number): number {
    const key = (first + 1) * 2 ** 26 + second + 1;
    let number = this.numbers.get(key);
    if (number === undefined) {
      this.numbers.set(key, (number = this.count++));
      if (number === this.firsts.length) {
        this.firsts = grown(this.firsts);
        this.seconds = grown(this.seconds);
      }
      this.firsts[number] = first;
      this.seconds[number] = second;
    }
    return number;
  }

  first(number: number): number {
    return this.firsts[number]!;
  }

  second(number: number): number {
    return this.seconds[number]!;
  }
}

function grown(list: Int32Array<ArrayBuffer>): Int32Array<ArrayBuffer> {
  const out = new Int32Array(list.length * 2);
  out.set(list);
  return out;
}
