import { trimmed } from '../source/space.ts';
import { compileBlock, resolvedText, type BlockContext } from '../cascade/compileBlock.ts';
import type { CompiledDeclaration } from '../cascade/compiledRule.ts';
import type { DefinitionRule, StyleRule } from '../sheet/sheet.ts';
import { MinHeap } from '../source/minHeap.ts';
import { foldedText } from '../sheet/tokens.ts';
import { longhandsOf, physicalCounterparts } from '../values/longhands.ts';
import type { Base } from '../values/urls.ts';

/**
 * Equal for rules that declare the same by meaning, wherever they stand: notation of colours, zeros, quotes and case does not
 * count, nor does the order of the parts of a shorthand, nor does the order of declarations that set different things. References count by what they point at.
 */
export function versionKey(rule: StyleRule | DefinitionRule, text: string, base: Base): string {
  const context: BlockContext = { base, fingerprint: undefined };
  if (rule.kind === 'definition') {
    const value = foldedText(text.slice(rule.blockSpan.start, rule.blockSpan.end));
    return resolvedText(value, context);
  }
  const nested = rule.nested.map((n) => foldedText(text.slice(n.span.start, n.span.end))).join(' ');
  return trimmed(`${orderFreeKey(compileBlock(rule.declarations, context).declarations)} ${nested}`);
}

/**
 * The declarations in the first order by name among all orders that mean the same: two may change places when they set no
 * common longhand. A property we do not know keeps its place.
 */
export function orderFreeKey(declarations: readonly CompiledDeclaration[]): string {
  const texts = declarations.map(
    ({ declaration: { property, important }, comparable, values }) =>
      `${property}:${values?.join(' ') ?? comparable}${important ? '!' : ''}`,
  );
  const { later, waiting } = orderOf(declarations);
  const free = new MinHeap<number>((a, b) => texts[a]! < texts[b]! || (texts[a] === texts[b] && a < b));
  waiting.forEach((before, i) => before === 0 && free.push(i));
  const out: string[] = [];
  for (let i = free.pop(); i !== undefined; i = free.pop()) {
    out.push(texts[i]!);
    for (const next of later[i]!) if (--waiting[next]! === 0) free.push(next);
  }
  return out.join(';');
}

/** By number: which declarations must stay behind each one, and for how many each one waits. */
function orderOf(declarations: readonly CompiledDeclaration[]): { later: number[][]; waiting: number[] } {
  const later: number[][] = declarations.map(() => []);
  const waiting = declarations.map(() => 0);
  const follow = (first: number, second: number): void => {
    later[first]!.push(second);
    waiting[second]!++;
  };
  /** The last one that sets each longhand, since the last one that may set anything. */
  let last = new Map<string, number>();
  let barrier = -1;
  declarations.forEach(({ declaration: { property } }, i) => {
    const sets = longhandsSetBy(property);
    if (!sets) {
      for (let before = barrier < 0 ? 0 : barrier; before < i; before++) follow(before, i);
      barrier = i;
      last = new Map();
      return;
    }
    const before = new Set([...sets].flatMap((longhand) => last.get(longhand) ?? []));
    if (barrier >= 0) before.add(barrier);
    for (const one of before) follow(one, i);
    for (const longhand of sets) last.set(longhand, i);
  });
  return { later, waiting };
}

/** Flow-relative longhands with the physical ones they may land on; undefined when it may set anything. */
function longhandsSetBy(property: string): ReadonlySet<string> | undefined {
  let known = memo.get(property);
  if (known === undefined) {
    const names = longhandsOf(property);
    known =
      property === 'all' || names.length === 0 ? null : new Set(names.flatMap((n) => [n, ...physicalCounterparts(n)]));
    memo.set(property, known);
  }
  return known ?? undefined;
}

const memo = new Map<string, ReadonlySet<string> | null>();
