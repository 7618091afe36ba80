import type { Contender } from '../cascade/contenders.ts';
import type { BrowserRule } from '../cascade/ownOutcome.ts';
import { longhandsForAll, longhandsOf } from '../values/longhands.ts';
import { slotOf, type Flow } from '../values/logicalSlot.ts';

/** Longhands that the same declarations set: one row of a table. */
export interface SlotGroup {
  readonly property: string;
  readonly slots: readonly string[];
  /** The declarations that set them, strongest first. */
  readonly members: readonly Contender[];
}

/** The longhands any declaration sets, those with the same declarations together; flow-relative ones where they land. */
export function rowsFor(
  contenders: readonly Contender[],
  defaults: readonly BrowserRule[],
  flow: Flow,
): readonly SlotGroup[] {
  const slots = new Map<string, { members: Contender[]; marks: string }>();
  const at = (name: string): { members: Contender[]; marks: string } => {
    const slot = slotOf(name, flow);
    let known = slots.get(slot);
    if (!known) slots.set(slot, (known = { members: [], marks: '' }));
    return known;
  };
  contenders.forEach((one, i) => {
    const { property } = one.compiled.declaration;
    for (const name of property === 'all' ? longhandsForAll : one.compiled.longhands) {
      const slot = at(name);
      if (slot.members.includes(one)) continue;
      slot.members.push(one);
      slot.marks += `${i} `;
    }
  });
  defaults.forEach((rule, i) =>
    rule.declarations.forEach((one, j) => {
      for (const name of one.longhands) {
        const slot = at(name);
        // what the browser says tells rows apart only where nobody else says anything
        if (slot.members.length === 0) slot.marks += `d${i}.${j} `;
      }
    }),
  );
  const groups = new Map<string, { slots: string[]; members: readonly Contender[] }>();
  for (const [slot, { members, marks }] of slots) {
    const group = groups.get(marks);
    if (group) group.slots.push(slot);
    else groups.set(marks, { slots: [slot], members });
  }
  return [...groups.values()].map((group) => ({ ...group, property: nameFor(group.slots, group.members) }));
}

/** The shorthand that stands for exactly these longhands, else the longhands' own names. */
function nameFor(slots: readonly string[], members: readonly Contender[]): string {
  if (slots.length === 1) return slots[0]!;
  for (const { compiled } of members) {
    const { property } = compiled.declaration;
    const own = property === 'all' ? longhandsForAll : longhandsOf(property);
    if (own.length === slots.length && slots.every((slot) => own.includes(slot))) return property;
  }
  const margins = /^(margin|padding)-(top|right|bottom|left)$/;
  const box = margins.exec(slots[0]!)?.[1];
  if (box !== undefined && slots.length === 4 && slots.every((slot) => margins.exec(slot)?.[1] === box)) return box;
  const shorthand = members.find(({ compiled }) => compiled.longhands.length > 1)?.compiled.declaration.property;
  if (slots.length <= 3 || shorthand === undefined) return slots.slice(0, 3).join(', ');
  return `${shorthand}, ${slots.length} of it`;
}
