import { lowered } from '../source/asciiCase.ts';
import type { PageCascade } from '../cascade/pageCascade.ts';
import { differingSlots, slotKeys, type StackSource } from '../cascade/stack.ts';
import { attributeOf } from '../page/nodes.ts';
import type { ElementPair } from './pairElements.ts';
import { isTemplated } from '../source/templates.ts';

/**
 * The slots that differ even where it does not count whether what decides is important. Rolling back (`revert`, `revert-layer`)
 * goes by origin and importance, so it counts there.
 */
export function slotsBeyondImportance(
  slots: readonly string[],
  before: readonly StackSource[],
  after: readonly StackSource[],
): readonly string[] {
  if ([...before, ...after].some(({ block }) => block.key.includes('revert'))) return slots;
  const differing = new Set(differingSlots(slotKeys(before, false), slotKeys(after, false)));
  return slots.filter((slot) => differing.has(slot));
}

const moving = /^(-webkit-|-moz-)?(animation|transition)|^position-try/;
const movingElements = /^(script|animate|animatemotion|animatetransform|set|marquee)$/;

/**
 * Whether something may stand between normal and important declarations of a page. CSS Cascading and Inheritance Level 5, "Cascading
 * Origins": animations beat normal declarations, important ones beat animations, and transitions beat all. CSS Anchor Positioning,
 * "The @position-try Rule": its declarations stand between as well; so do the sheets and style attributes a server writes.
 */
export function importanceCounts({ rules, tree }: PageCascade): boolean {
  return (
    isTemplated(tree.text) ||
    rules.definitions.some(({ compiled }) => /keyframes$|^position-try$/.test(compiled.name)) ||
    rules.unread.some(({ isNothing }) => !isNothing) ||
    rules.rules.some(({ compiled }) =>
      compiled.block.declarations.some(
        ({ declaration, comparable }) =>
          moving.test(declaration.property) || (declaration.property === 'all' && comparable !== ''),
      ),
    ) ||
    tree.elements.some(
      (element) =>
        movingElements.test(lowered(element.tag)) ||
        /animation|transition|position-try/i.test(attributeOf(element, 'style') ?? '') ||
        element.attributes.some(({ name, value }) => name.startsWith('on') || /^[\t\n\f\r ]*javascript:/i.test(value)),
    )
  );
}

/** What a visitor who draws at the corner of an element sets. */
export const sizes = /^ (width|height|inline-size|block-size)$/;

/**
 * Whether a visitor may change the size of an element: browsers write it into its style attribute, which beats normal declarations and
 * loses to important ones. CSS Basic User Interface 4, "Resizing Boxes: the resize property".
 */
export const mayBeResized = ({ before }: ElementPair, stacks: readonly ReadonlyMap<string, string>[]): boolean =>
  before.tag === 'textarea' || stacks.some((all) => all.has(' resize') || all.has(' all'));
