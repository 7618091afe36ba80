import { parseSheet } from '../sheet/parseSheet.ts';
import type { Span } from '../source/span.ts';

/** How far each rule of a sheet moved between two of its states; the rules at its ends that read the same are the same ones. */
export class SheetMoves {
  /** Where the rules that stayed start in the older text, in order, and how far each moved. */
  private readonly starts: readonly number[];
  private readonly moves: readonly number[];
  /** Where the changed rules lie in the older text. */
  private readonly changed: Span;

  constructor(then: string, now: string) {
    const [old, fresh] = [parseSheet(then).rules, parseSheet(now).rules];
    const alike = (a: number, b: number): boolean =>
      then.slice(old[a]!.span.start, old[a]!.span.end) === now.slice(fresh[b]!.span.start, fresh[b]!.span.end);
    const most = Math.min(old.length, fresh.length);
    let head = 0;
    while (head < most && alike(head, head)) head++;
    let tail = 0;
    while (tail < most - head && alike(old.length - 1 - tail, fresh.length - 1 - tail)) tail++;
    const stayed = old.flatMap(({ span }, i) => {
      if (i < head) return [{ start: span.start, by: fresh[i]!.span.start - span.start }];
      const at = i + fresh.length - old.length;
      return i < old.length - tail ? [] : [{ start: span.start, by: fresh[at]!.span.start - span.start }];
    });
    this.starts = stayed.map(({ start }) => start);
    this.moves = stayed.map(({ by }) => by);
    const end = old[old.length - tail]?.span.start ?? then.length;
    this.changed = { start: old[head]?.span.start ?? then.length, end };
  }

  /** Of the rule at or around this place of the older text; undefined where it changed or went. */
  by(place: number): number | undefined {
    if (place >= this.changed.start && place < this.changed.end) return undefined;
    let [low, high] = [0, this.starts.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.starts[middle]! <= place) low = middle + 1;
      else high = middle;
    }
    return low === 0 ? undefined : this.moves[low - 1];
  }
}
