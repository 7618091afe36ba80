import { compileBlock, type BlockContext } from '../cascade/compileBlock.ts';
import type { CompiledDeclaration } from '../cascade/compiledRule.ts';
import type { DefinitionRule, StyleRule } from '../sheet/sheet.ts';
import { foldedText } from '../sheet/tokens.ts';
import { longhandsOf, physicalCounterparts } from '../values/longhands.ts';
import type { Base } from '../values/urls.ts';

/**
 * Equal for rules that declare the same by meaning, wherever they stand: notation of colours, zeros, quotes and case do not
 * count, nor does the order of declarations that set different things. References count by what they point at.
 */
export function versionKey(rule: StyleRule | DefinitionRule, text: string, base: Base): string {
  const context: BlockContext = { base, fingerprint: undefined };
  if (rule.kind === 'definition') {
    const value = foldedText(text.slice(rule.blockSpan.start, rule.blockSpan.end));
    const whole = { property: 'src', value, important: false, span: rule.span, valueSpan: rule.span };
    return compileBlock([whole], context).key;
  }
  const nested = rule.nested.map((n) => foldedText(text.slice(n.span.start, n.span.end))).join(' ');
  return `${orderFreeKey(compileBlock(rule.declarations, context).declarations)} ${nested}`.trim();
}

/**
 * The declarations in the first order by name among all orders that mean the same: two may change places when they set no
 * common longhand. A property we do not know keeps its place.
 */
export function orderFreeKey(declarations: readonly CompiledDeclaration[]): string {
  const rest = declarations.map((compiled) => ({
    text: `${compiled.declaration.property}:${compiled.comparable}${compiled.declaration.important ? '!' : ''}`,
    sets: longhandsSetBy(compiled.declaration.property),
  }));
  const out: string[] = [];
  while (rest.length > 0) {
    let first = 0;
    for (let i = 1; i < rest.length; i++)
      if (rest[i]!.text < rest[first]!.text && rest.slice(0, i).every((one) => areApart(one.sets, rest[i]!.sets)))
        first = i;
    out.push(rest.splice(first, 1)[0]!.text);
  }
  return out.join(';');
}

const areApart = (a: ReadonlySet<string> | undefined, b: ReadonlySet<string> | undefined): boolean =>
  a !== undefined && b !== undefined && ![...a].some((name) => b.has(name));

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
