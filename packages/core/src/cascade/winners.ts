import { longhandsForAll } from '../values/longhands.ts';
import { slotOf, type Flow } from '../values/logicalSlot.ts';
import type { Contender } from './contenders.ts';

/**
 * The winner of every longhand that a declaration in play sets, custom properties included. A flow-relative longhand and the
 * physical one it lands on share one winner. `contenders` strongest first.
 */
export function winnersAmong(contenders: readonly Contender[], flow: Flow): ReadonlyMap<string, Contender> {
  const slots = new Map<string, Contender>();
  const names: string[] = [];
  for (const contender of contenders) {
    const { property } = contender.compiled.declaration;
    for (const longhand of property === 'all' ? longhandsForAll : contender.compiled.longhands) {
      names.push(longhand);
      const slot = slotOf(longhand, flow);
      if (!slots.has(slot)) slots.set(slot, contender);
    }
  }
  return new Map(names.map((name) => [name, slots.get(slotOf(name, flow))!]));
}
