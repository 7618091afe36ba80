import type { BrowserRule } from '../cascade/ownOutcome.ts';
import { isOutsideAll, longhandsForAll } from '../values/longhands.ts';
import type { TableEntry } from './tableRow.ts';

/** The browser’s own declaration for a row of `slots`; `slot` tells which a longhand fills. */
export function browserEntry(
  defaults: readonly BrowserRule[],
  slots: readonly string[],
  property: string,
  wins: boolean,
  beaten: boolean,
  slot: (name: string) => string,
): TableEntry | undefined {
  for (const rule of [...defaults].reverse())
    for (const { declaration, longhands } of [...rule.declarations].reverse()) {
      const names = declaration.property === 'all' ? longhandsForAll.filter((name) => !isOutsideAll(name)) : longhands;
      if (!names.some((name) => slots.includes(slot(name)))) continue;
      return {
        id: 'browser',
        source: 'browser',
        declared: declaration.property === property ? '' : declaration.property,
        value: declaration.value,
        important: declaration.important,
        selector: rule.selector,
        rule: undefined,
        specificity: undefined,
        file: '',
        line: 0,
        state: wins ? 'wins' : 'loses',
        reason: wins || !beaten ? undefined : { kind: 'default', words: 'weakest origin' },
      };
    }
  return undefined;
}
