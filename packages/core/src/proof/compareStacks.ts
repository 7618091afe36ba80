import { desktop } from '../cascade/environment.ts';
import { hintsOf, hintText, ownStyle } from '../cascade/hints.ts';
import { browsersOwn, differingSlots, hintRank, slotKeys } from '../cascade/stack.ts';
import type { ElementNode } from '../page/nodes.ts';
import { elementName, elementPath, parentElement } from '../page/parsePage.ts';
import { placeOf } from '../source/span.ts';
import type { PageState } from './explainDifference.ts';
import { explainSlots, type KeyedCause } from './explainSlots.ts';
import { importanceCounts, mayBeResized, sizes, slotsBeyondImportance } from './importance.ts';
import type { ElementPair } from './pairElements.ts';
import type { Cause, ElementRef } from './proof.ts';
import { beyondRolledBack } from './rolledBack.ts';
import { beyondSilentInitials } from './silentInitials.ts';

/** How many elements of a page are explained one by one; beyond, a page that differs is only counted. */
const explainedElements = 400;

/** What differs between the stacks of elements that are one and the same, and why. `hintsMoved`: attributes below all rules count. */
export function compareStacks(
  before: PageState,
  after: PageState,
  pairs: readonly ElementPair[],
  hintsMoved: boolean,
): { causes: readonly Cause[]; differing: number } {
  const session = before.cascade.session;
  const causes = new Map<string, Cause & { elements: ElementRef[] }>();
  const memo = new Map<string, readonly string[]>();
  let counts: boolean | undefined;
  const differingLists = (left: number, right: number, pair: ElementPair): readonly string[] => {
    const slots = differingSlots(session.slotsOfList(left), session.slotsOfList(right));
    if (slots.length === 0) return slots;
    counts ??= importanceCounts(before.cascade) || importanceCounts(after.cascade);
    if (counts) return slots;
    const beyond = slotsBeyondImportance(slots, session.sourcesOf(left), session.sourcesOf(right));
    if (
      beyond.length === slots.length ||
      !mayBeResized(
        pair,
        [left, right].map((list) => session.slotsOfList(list)),
      )
    )
      return beyond;
    return slots.filter((slot) => beyond.includes(slot) || sizes.test(slot));
  };
  let differing = 0;
  for (const pair of pairs) {
    const left = before.cascade.listOf(pair.before);
    const right = after.cascade.listOf(pair.after);
    const hints = hintsMoved ? [bottomOf(pair.before), bottomOf(pair.after)] : undefined;
    const moved = hints !== undefined && hints[0] !== hints[1];
    const renamed = pair.before.tag !== pair.after.tag;
    if (renamed && mayRedrawLines(before, pair.before) && differing++ < explainedElements)
      addCause(causes, lineCause(pair), pair.before, before);
    if (left === right && !moved) continue;
    const key = `${left} ${right} ${moved ? hints.join(' → ') : ''}${renamed || pair.before.tag === 'textarea' ? ` ${pair.before.tag}` : ''}`;
    let slots = memo.get(key);
    if (!slots)
      memo.set(
        key,
        (slots = moved
          ? differingSlots(
              slotsWithHints(before, left, hints[0]!, renamed),
              slotsWithHints(after, right, hints[1]!, false),
            )
          : differingLists(left, right, pair)),
      );
    const telling = beyondRolledBack(beyondSilentInitials(slots, before, after, pair), before, after, pair);
    if (telling.length === 0) continue;
    if (differing++ >= explainedElements) continue;
    for (const cause of explainSlots(before, after, pair, telling, desktop))
      addCause(causes, cause, pair.before, before);
  }
  return { causes: [...causes.values()], differing };
}

/** What stands below all rules: what the element itself declares, and its presentational attributes. */
const bottomOf = (element: ElementNode): string => hintText([...ownStyle(element), ...hintsOf(element)]);

/** The stacks with what stands below all rules at their bottom. `own`: some of it is the element's own style, to which `revert` rolls back. */
function slotsWithHints(
  { cascade }: PageState,
  list: number,
  hints: string,
  own: boolean,
): ReadonlyMap<string, string> {
  const sources = cascade.session.sourcesOf(list);
  if (hints === '') return slotKeys(sources);
  const block = cascade.session.sheets.styleAttribute(hints, cascade.rules.sources.base);
  // rolling back a layer rolls back rules, not attributes
  const rolled = own ? 'revert' : 'revert-layer';
  const mark = sources.some((source) => source.block.key.includes(rolled))
    ? ` as an attribute${own ? browsersOwn : ''}`
    : '';
  return slotKeys([{ block, pseudoElement: '', layerRank: hintRank, condition: '', mark }, ...sources]);
}

export function addCause(
  causes: Map<string, Cause & { elements: ElementRef[] }>,
  { key, ...found }: KeyedCause,
  element: ElementNode,
  state: PageState,
): void {
  let cause = causes.get(key);
  if (!cause) causes.set(key, (cause = { ...found, elements: [] }));
  cause.elements.push(refOf(element, state.cascade.tree.text));
}

const lineCause = (pair: ElementPair): KeyedCause => ({
  key: 'lines',
  pseudoElement: '',
  property: 'text-decoration-color',
  before: undefined,
  after: undefined,
  reason: `Lines under or through the text of a ${pair.before.tag} element take its colour; those of a ${pair.after.tag} keep the colour of what draws them.`,
});

/**
 * Whether something may draw lines through the text of a `font` element. HTML Standard, "Rendering", "Phrasing content": the
 * element overrides the colour of any text decoration that spans its text.
 */
function mayRedrawLines({ cascade }: PageState, font: ElementNode): boolean {
  if (font.tag !== 'font') return false;
  for (let at: ElementNode | undefined = font; at; at = parentElement(at)) {
    if (/^(a|u|s|ins|del|strike|abbr|acronym)$/.test(at.tag)) return true;
    for (const [slot, stack] of cascade.session.slotsOfList(cascade.listOf(at)))
      if (/(^| )(text-decoration-line|all)$/.test(slot) && !/^text-decoration(-line)?:none\n$/.test(stack)) return true;
  }
  return false;
}

export const refOf = (element: ElementNode, text: string): ElementRef => ({
  path: elementPath(element),
  name: elementName(element),
  line: placeOf(text, Math.max(element.start, 0)).line,
});
