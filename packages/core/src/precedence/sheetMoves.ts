import type { CompiledDeclaration, CompiledRule } from '../cascade/compiledRule.ts';
import type { Contender } from '../cascade/contenders.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import type { Declaration } from '../sheet/sheet.ts';
import type { Span } from '../source/span.ts';

/** How far each rule of a sheet moved between two of its states; the rules at its ends that read the same are the same ones. */
export class SheetMoves {
  /** Where the rules that stayed start in the older text, in order, and how far each moved. */
  private readonly starts: readonly number[];
  private readonly moves: readonly number[];
  /** Where the changed rules lie in the older text. */
  private readonly changed: Span;
  private readonly rules = new Map<CompiledRule, CompiledRule>();

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

  get movesNothing(): boolean {
    return this.moves.every((by) => by === 0);
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

  /** The same rule where it stands now: one object for each. */
  moved(compiled: CompiledRule, by: number): CompiledRule {
    let known = this.rules.get(compiled);
    if (!known) {
      const { rule } = compiled;
      const declarations = rule.declarations.map((one) => movedDeclaration(one, by));
      const own = { ...rule, declarations, span: movedSpan(rule.span, by), selectorSpan: movedSpan(rule.selectorSpan, by) }; // prettier-ignore
      this.rules.set(compiled, (known = { ...compiled, rule: own }));
    }
    return known;
  }
}

const movedSpan = ({ start, end }: Span, by: number): Span => ({ start: start + by, end: end + by });

const movedDeclaration = (one: Declaration, by: number): Declaration => ({
  ...one,
  span: movedSpan(one.span, by),
  valueSpan: movedSpan(one.valueSpan, by),
});

const movedCompiled = (one: CompiledDeclaration, by: number): CompiledDeclaration => ({
  ...one,
  declaration: movedDeclaration(one.declaration, by),
});

type ByName = ReadonlyMap<string, readonly Contender[]>;

/** Declarations of these sheets at the places they have now; the same map where none of them moved. */
export function movedContenders(byName: ByName, sheets: ReadonlyMap<string, SheetMoves>): ByName {
  let isMoved = false;
  const out = new Map<string, readonly Contender[]>();
  for (const [name, contenders] of byName)
    out.set(
      name,
      contenders.map((one) => {
        const { source, rule, compiled } = one;
        const moves = source && source.kind !== 'embedded' ? sheets.get(source.path) : undefined;
        const by = rule && moves?.by(rule.rule.span.start);
        if (!by) return one;
        isMoved = true;
        return { ...one, rule: moves!.moved(rule, by), compiled: movedCompiled(compiled, by) };
      }),
    );
  return isMoved ? out : byName;
}
