import { hintsOf, hintText, ownStyle } from '../cascade/hints.ts';
import { splitSlot } from '../cascade/stack.ts';
import type { PageState } from './explainDifference.ts';
import type { ElementPair } from './pairElements.ts';
import { mayBeStyledUnseen } from './styledUnseen.ts';

/** At the bottom of a stack, under no condition and not important (then it would beat animations): as if no author said anything. */
const rollback = /(?:^|\n)([\w-]+):revert(?![\w-])([^\n]*)\n$/;

/** Browsers draw them otherwise where an author says something of them, whatever it comes to. CSS Basic User Interface 4, "appearance". */
export const drawnApart = new Set(['button', 'input', 'select', 'textarea', 'meter', 'progress']);

/**
 * Of slots that differ, those that do not do so merely because one side rolls back to the browser's own where no author says anything
 * on the other. Only for elements without presentational attributes, which `revert` passes over too, and on pages where nobody sets some
 * unseen and all sheets can be read. CSS Cascading and Inheritance 5, "Rolling Back Cascade Origins: the revert keyword".
 */
export function beyondRolledBack(
  slots: readonly string[],
  before: PageState,
  after: PageState,
  pair: ElementPair,
): readonly string[] {
  if (slots.length === 0 || pair.before.tag !== pair.after.tag || drawnApart.has(pair.before.tag)) return slots;
  const stacks = (
    [
      [before, pair.before],
      [after, pair.after],
    ] as const
  ).map(([{ cascade }, element]) => cascade.session.slotsOfList(cascade.listOf(element)));
  if (!stacks.some((all) => slots.some((slot) => rollback.test(all.get(slot) ?? '')))) return slots;
  if (
    [pair.before, pair.after].some(
      (element) => element.namespace !== 'html' || hintText([...ownStyle(element), ...hintsOf(element)]) !== '',
    )
  )
    return slots;
  for (const { cascade } of [before, after]) {
    if (mayBeStyledUnseen(cascade.tree)) return slots;
    if (cascade.rules.unread.some(({ isNothing }) => !isNothing)) return slots;
  }
  return slots.filter((slot) => {
    const [pseudoElement] = splitSlot(slot);
    if (!['', '::before', '::after'].includes(pseudoElement) || stacks.some((all) => all.has(`${pseudoElement} all`)))
      return true;
    const [left, right] = stacks.map((all) => withoutRollback(all.get(slot) ?? ''));
    return left !== right;
  });
}

function withoutRollback(stack: string): string {
  const found = rollback.exec(stack);
  if (!found || found[1]!.startsWith('--') || found[2]!.includes('!') || found[2]!.includes(' if ')) return stack;
  return stack.slice(0, found.index === 0 && !stack.startsWith('\n') ? 0 : found.index + 1);
}
