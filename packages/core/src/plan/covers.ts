import type { PlannedRule } from './ruleTable.ts';
import { physicalCounterparts } from '../values/longhands.ts';

/**
 * Whether a rule decides nothing where rules of its family come after it: these surely set every longhand it sets, with the same
 * importance. A flow-relative longhand may land on another side than it seems to, so it is never covered.
 */
export function covers(later: readonly PlannedRule[], rule: PlannedRule): boolean {
  if (rule.kind !== 'rule' || rule.opaque || later.length === 0) return false;
  const set = new Set<string>();
  for (const { declarations } of later)
    for (const { declaration, longhands, validity, yields } of declarations)
      if (validity === 'valid' && !yields) for (const name of longhands) set.add(slot(name, declaration.important));
  return rule.declarations.every(
    ({ declaration, longhands }) =>
      longhands.length === 0 ||
      (declaration.property !== 'all' &&
        longhands.every(
          (name) => physicalCounterparts(name).length === 0 && set.has(slot(name, declaration.important)),
        )),
  );
}

const slot = (longhand: string, important: boolean): string => `${longhand}${important ? '!' : ''}`;
