import type { MatchedSelector } from '../cascade/indexedSelector.ts';
import { compareStrength } from '../cascade/ruleIndex.ts';

/**
 * Adds to `out` the numbers of rules of source `from` that reach the element and lose a longhand to a rule of the later source
 * `to` only because that comes later. Conditions are not looked at beyond being equal. Sources by number on the page.
 */
export function orderFlips(matched: readonly MatchedSelector[], from: number, to: number, out: Set<number>): void {
  for (const { indexed: early } of matched) {
    if (early.rule.source.sourceIndex !== from) continue;
    for (const { indexed: late } of matched) {
      if (late.rule.source.sourceIndex !== to || late.pseudoElement !== early.pseudoElement) continue;
      if (compareStrength(early, late) !== 0 || early.rule.conditionKey !== late.rule.conditionKey) continue;
      const beaten = early.rule.compiled.block.declarations.some((a) =>
        late.rule.compiled.block.declarations.some(
          (b) =>
            a.declaration.important === b.declaration.important &&
            a.comparable !== b.comparable &&
            b.validity === 'valid' &&
            a.longhands.some((name) => b.longhands.includes(name)),
        ),
      );
      if (beaten) out.add(early.rule.compiled.number);
    }
  }
}
