import type { PageReading } from '../../survey/pageReading.ts';
import { enclosingNames } from './enclosingNames.ts';
import { keyOf, type MarkedPages, type PageNeed } from './marks.ts';

/** A rule that would reach further than it should, with the marks it would ask for. */
export interface Asking {
  readonly number: number;
  readonly selector: string;
  readonly need: PageNeed;
  readonly marks: readonly MarkedPages[];
}

/**
 * By rule, the name of elements that enclose all it means, in place of a mark: where that serves every rule that asks for the mark, so that
 * no page needs it.
 */
export function namesAround(
  asking: readonly Asking[],
  readings: readonly (PageReading | undefined)[],
  /** Elements may come to be anywhere on the page. */
  isLoose: (page: number) => boolean,
  classesOnly: boolean,
): ReadonlyMap<number, string> {
  const found = new Map<number, string>();
  for (const [, rules] of groupedBy(
    asking.flatMap((rule) => rule.marks.map((mark) => ({ mark, rule }))),
    ({ mark }) => mark,
  )) {
    if (rules.some(({ rule }) => rule.marks.length > 1)) continue;
    const groups = [...groupedBy(rules, ({ rule }) => keyOf({ ...rule.need, root: false })).values()];
    const named = groups.map((group) => {
      const { pages, without } = group[0]!.rule.need;
      if ([...pages].some(isLoose)) return undefined;
      const selectors = [...new Set(group.map(({ rule }) => rule.selector))];
      const names = enclosingNames({ pages, without, selectors }, readings, classesOnly);
      return names && group.map(({ rule }) => [rule.number, names.get(rule.selector)!] as const);
    });
    if (named.every((names) => names !== undefined)) for (const [number, name] of named.flat()) found.set(number, name);
  }
  return found;
}

function groupedBy<K, T>(all: readonly T[], keyOfOne: (one: T) => K): ReadonlyMap<K, readonly T[]> {
  const groups = new Map<K, T[]>();
  for (const one of all) {
    const key = keyOfOne(one);
    const group = groups.get(key);
    if (group) group.push(one);
    else groups.set(key, [one]);
  }
  return groups;
}
