import type { Declaration } from '../../sheet/sheet.ts';
import { comparableValue } from '../../values/comparableValue.ts';
import { longhandsOf, physicalCounterparts } from '../../values/longhands.ts';

/** Declarations that some looks have in common and that stand in one class for all of them. */
export interface LookPart {
  readonly declarations: readonly Declaration[];
}

/** An element gets no more classes than these for one look. */
const mostParts = 3;
/** Fewer looks than these are as easily read one by one. */
const fewLooks = 12;
/** Parts have to be fewer than looks by so much, to be worth two classes on an element. */
const worthwhile = 0.6;

/**
 * Looks taken apart, where many of them are combinations of few declarations: each one's parts, by its place in the list. Undefined
 * where that does not make much fewer rules. A look of one part is one class; one that is not in the answer stays whole.
 */
export function lookParts(
  looks: readonly (readonly Declaration[])[],
): ReadonlyMap<number, readonly LookPart[]> | undefined {
  let among = looks.flatMap((look, i) => (isSeparable(look) ? [i] : []));
  let parts = partsOf(looks, among);
  // without those that would need too many the others may share more
  among = among.filter((i) => parts.get(i)!.length <= mostParts);
  parts = partsOf(looks, among);
  among = among.filter((i) => parts.get(i)!.length <= mostParts);
  const found = new Map(among.map((i) => [i, parts.get(i)!] as const));
  const rules = new Set([...found.values()].flat()).size;
  return among.length >= fewLooks && rules <= among.length * worthwhile ? found : undefined;
}

/** Whether no declaration of a look hangs on another, so that they may stand in any order. */
function isSeparable(look: readonly Declaration[]): boolean {
  const set = new Set<string>();
  for (const { property, important } of look) {
    const names = longhandsOf(property);
    if (important || property.startsWith('--') || names.length === 0) return false;
    for (const name of names) {
      if (set.has(name) || physicalCounterparts(name).length > 0) return false;
      set.add(name);
    }
  }
  return look.length > 0;
}

/** Declarations that the very same looks have are one part. */
function partsOf(
  looks: readonly (readonly Declaration[])[],
  among: readonly number[],
): ReadonlyMap<number, readonly LookPart[]> {
  const holders = new Map<string, number[]>();
  for (const i of among)
    for (const key of looks[i]!.map(keyOf)) {
      const list = holders.get(key);
      if (list) list.push(i);
      else holders.set(key, [i]);
    }
  const parts = new Map<string, LookPart>();
  return new Map(
    among.map((i) => {
      const byHolders = new Map<string, Declaration[]>();
      for (const declaration of looks[i]!) {
        const key = holders.get(keyOf(declaration))!.join();
        const list = byHolders.get(key);
        if (list) list.push(declaration);
        else byHolders.set(key, [declaration]);
      }
      const own = [...byHolders].map(([key, declarations]): LookPart => {
        let part = parts.get(key);
        if (!part) parts.set(key, (part = { declarations }));
        return part;
      });
      return [i, own] as const;
    }),
  );
}

const keyOf = ({ property, value }: Declaration): string => `${property}:${comparableValue(property, value)}`;
