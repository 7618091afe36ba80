import type { Contender } from '../cascade/contenders.ts';
import type { Environment } from '../cascade/environment.ts';
import { splitSlot } from '../cascade/stack.ts';
import type { ElementPair } from './pairElements.ts';
import { deciderOf, explainDifference, valueFor, type PageState } from './explainDifference.ts';
import type { Cause } from './proof.ts';

/** A cause before its elements are known; equal keys are one cause. */
export type KeyedCause = Omit<Cause, 'elements'> & { readonly key: string };

/** Longhands of one element that differ by the same two declarations for the same reason. */
interface SlotGroup {
  readonly pseudoElement: string;
  readonly before: Contender | undefined;
  readonly after: Contender | undefined;
  readonly reason: string;
  readonly longhands: string[];
}

/**
 * What differs about one element, said in longhands with their values; in a shorthand where both sides declare it and all it sets
 * differs, or what it gives each cannot be told.
 */
export function explainSlots(
  before: PageState,
  after: PageState,
  pair: ElementPair,
  slots: readonly string[],
  environment: Environment,
): readonly KeyedCause[] {
  const groups = new Map<string, SlotGroup>();
  const numbers = new Map<Contender['compiled'] | undefined, number>();
  const numberOf = (one: Contender | undefined): number => {
    let number = numbers.get(one?.compiled);
    if (number === undefined) numbers.set(one?.compiled, (number = numbers.size));
    return number;
  };
  for (const slot of slots) {
    const [pseudoElement, longhand] = splitSlot(slot);
    const found = explainDifference(before, after, pair, longhand, pseudoElement, environment);
    const told = withoutValues(found.reason.replaceAll(longhand, ''));
    const key = [pseudoElement, numberOf(found.before), numberOf(found.after), told].join('\n');
    const group = groups.get(key);
    if (group) group.longhands.push(longhand);
    else groups.set(key, { pseudoElement, ...found, longhands: [longhand] });
  }
  return [...groups.values()].flatMap((group) => causesOf(group, before, after, pair));
}

const withoutValues = (reason: string): string => reason.replace(/ says `[^]*` now; it said `[^]*`\.$/, '');

function causesOf(group: SlotGroup, before: PageState, after: PageState, pair: ElementPair): readonly KeyedCause[] {
  const { pseudoElement, reason } = group;
  const causes = namesFor(group).map(({ property, longhand }): KeyedCause => {
    const sideOf = (contender: Contender | undefined, state: PageState, element: ElementPair['before']) =>
      contender && deciderOf(contender, { property, value: saidFor(contender, property, longhand) }, state, element);
    const sides = { before: sideOf(group.before, before, pair.before), after: sideOf(group.after, after, pair.after) };
    const told = toldFor(group, reason, property, longhand);
    const key = [pseudoElement, property, keyOf(sides.before), keyOf(sides.after), told].join('\n');
    return { key, pseudoElement, property, ...sides, reason: told };
  });
  return causes.filter((cause, i) => causes.findIndex(({ key }) => key === cause.key) === i);
}

const keyOf = (side: Cause['before']): string => (side ? `${side.selector} ${side.property} ${side.value}` : '-');

/** The property to name, and a longhand it stands for. */
interface Named {
  readonly property: string;
  readonly longhand: string;
}

function namesFor({ before, after, longhands }: SlotGroup): readonly Named[] {
  const [first] = longhands as [string];
  const declared = [before, after].flatMap((one) => (one ? [one.compiled] : []));
  const names = new Set(declared.map((one) => one.declaration.property));
  const [name] = names;
  const parted = declared.every((one) => one.values !== undefined || one.longhands.length < 2);
  const whole = declared.some((one) => one.longhands.length === longhands.length) || !parted;
  if (names.size === 1 && whole) return [{ property: name!, longhand: first }];
  return longhands.length > 1
    ? boxNames(longhands, declared.length === 0 ? [] : [before, after])
    : [{ property: first, longhand: first }];
}

const box = /^(margin|padding|border|scroll-margin|scroll-padding)-(top|right|bottom|left)(-(?:width|style|color))?$/;

/** Four sides that get the same are one: `border-color`. */
function boxNames(longhands: readonly string[], sides: readonly (Contender | undefined)[]): readonly Named[] {
  const out: Named[] = [];
  for (const longhand of longhands) {
    const property = longhand.replace(box, '$1$3');
    const alike = longhands.filter((one) => one.replace(box, '$1$3') === property);
    const equal = sides.every((side) => !side || new Set(alike.map((one) => valueFor(side, one))).size === 1);
    if (property === longhand || alike.length < 4 || !equal) out.push({ property: longhand, longhand });
    else if (!out.some((one) => one.property === property)) out.push({ property, longhand });
  }
  return out;
}

/** As written where the declaration is of that property; else what it gives the longhand. */
function saidFor(contender: Contender, property: string, longhand: string): string {
  const { declaration, values } = contender.compiled;
  if (declaration.property === property) return declaration.value;
  const value = valueFor(contender, longhand);
  return values || declaration.property === longhand ? value : `${value} (as ${declaration.property})`;
}

/** The sentence, with the name and the values of what is named. */
function toldFor({ before, after, longhands }: SlotGroup, reason: string, property: string, longhand: string): string {
  const [first] = longhands as [string];
  if (withoutValues(reason) === reason || !before || !after) return reason.replaceAll(first, property);
  return `${withoutValues(reason)} says \`${saidFor(after, property, longhand)}\` now; it said \`${saidFor(before, property, longhand)}\`.`;
}
