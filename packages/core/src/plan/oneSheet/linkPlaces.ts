import { mayCompete } from '../../operations/gather/compete.ts';
import type { PlannedPage, RuleTable } from '../ruleTable.ts';

/** Where a page links the sheet, and which of its rules cannot go there. */
export interface LinkPlace {
  /** Behind so many of the sources that stay. */
  readonly segment: number;
  /** Rules that would pass a source that stays and says something else, and rules that would pass these. */
  readonly staying: ReadonlySet<number>;
}

/**
 * One place for the link on a page: the one that most rules can reach without passing a source they compete with. `fixed`: where
 * the page links the sheet already. `left`: rules that stay in their blocks in any case.
 */
export function linkPlaceOf(table: RuleTable, page: PlannedPage, left: ReadonlySet<number>, fixed?: number): LinkPlace {
  const { sequence, segments, anchors } = page;
  const passes = (i: number, at: number): boolean => {
    const from = segments[i]!;
    for (let k = Math.min(from, at); k < Math.max(from, at); k++)
      if (table.competes(anchors[k]!.sheet, sequence[i]!)) return true;
    return false;
  };
  let best = fixed ?? 0;
  let most = -1;
  for (let at = anchors.length; fixed === undefined && at >= 0; at--) {
    const fitting = sequence.filter((rule, i) => !left.has(rule) && !passes(i, at)).length;
    // of equal places one that has a block
    if (fitting > most || (fitting === most && segments.includes(at) && !segments.includes(best)))
      [best, most] = [at, fitting];
  }
  const staying = new Set(sequence.filter((rule, i) => left.has(rule) || passes(i, best)));
  spread(table, page, best, staying);
  return { segment: best, staying };
}

/** A rule that moves must not pass one that stays and competes with it: blocks of the link's own segment stand behind the link. */
function spread(table: RuleTable, { sequence, segments }: PlannedPage, at: number, staying: Set<number>): void {
  const work = sequence.flatMap((rule, i) => (staying.has(rule) ? [i] : []));
  while (work.length > 0) {
    const stays = work.pop()!;
    const isBehind = segments[stays]! >= at;
    sequence.forEach((rule, i) => {
      if (staying.has(rule) || i < stays === isBehind) return;
      if (!mayCompete(table.rules[rule]!.traits, table.rules[sequence[stays]!]!.traits)) return;
      staying.add(rule);
      work.push(i);
    });
  }
}
