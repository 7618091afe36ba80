import { mayCompete, traitsOf, type Orderable, type Traits } from './compete.ts';

/**
 * One order for rules that many pages hold in orders of their own, such that on every page the rules that compete stand as they
 * did. Where order is free, first appearance decides. `left` are rules no order serves; the rest is ordered without them.
 *
 * `sequences`: per page the keys in page order. Weight: on how many pages a rule stands; of a cycle the rarest rule is left.
 */
export function mergeOrder(
  rules: ReadonlyMap<string, Orderable>,
  sequences: readonly (readonly string[])[],
): { readonly order: readonly string[]; readonly left: readonly string[] } {
  const first = new Map<string, number>();
  const weight = new Map<string, number>();
  for (const sequence of sequences)
    for (const key of sequence) {
      if (!first.has(key)) first.set(key, first.size);
      weight.set(key, (weight.get(key) ?? 0) + 1);
    }
  // where no page turns that order round, it serves them all
  if (sequences.every((sequence) => isRising(sequence, first))) return { order: [...first.keys()], left: [] };
  const later = collectEdges(rules, sequences, weight);
  return sortKeys([...first.keys()], later, weight);
}

const isRising = (sequence: readonly string[], place: ReadonlyMap<string, number>): boolean =>
  sequence.every((key, i) => i === 0 || place.get(sequence[i - 1]!)! <= place.get(key)!);

/** Which rules come later than which on some page, of those that compete. Rules are numbered: pairs are asked for by millions. */
function collectEdges(
  rules: ReadonlyMap<string, Orderable>,
  sequences: readonly (readonly string[])[],
  weight: ReadonlyMap<string, number>,
): Map<string, Set<string>> {
  const keys: string[] = [];
  const numbers = new Map<string, number>();
  const traits: Traits[] = [];
  const numberOf = (key: string): number => {
    let number = numbers.get(key);
    if (number === undefined) {
      numbers.set(key, (number = keys.length));
      keys.push(key);
      traits.push(traitsOf(rules.get(key)!));
    }
    return number;
  };
  /** By rule: what was found for each other rule that was seen after it: true where they compete. */
  const known: Map<number, boolean>[] = [];
  const later = new Map<string, Set<string>>();
  const order = (a: number, b: number): void => {
    const pairs = (known[a] ??= new Map<number, boolean>());
    if (pairs.has(b)) return;
    const competing = known[b]?.get(a) ?? mayCompete(traits[a]!, traits[b]!);
    pairs.set(b, competing);
    if (!competing) return;
    const set = later.get(keys[a]!);
    if (set) set.add(keys[b]!);
    else later.set(keys[a]!, new Set([keys[b]!]));
  };
  const seen = new Set<string>();
  for (const sequence of sequences) {
    const row = sequence.map(numberOf);
    // many pages hold the same rules in the same order, but for those that only one page holds
    const shared = row.filter((number) => weight.get(keys[number]!)! > 1);
    const whole = shared.join();
    if (!seen.has(whole))
      for (let i = 0; i < shared.length; i++) for (let j = i + 1; j < shared.length; j++) order(shared[i]!, shared[j]!);
    seen.add(whole);
    for (let i = 0; i < row.length && shared.length < row.length; i++) {
      if (weight.get(keys[row[i]!]!)! > 1) continue;
      for (let j = 0; j < i; j++) order(row[j]!, row[i]!);
      for (let j = i + 1; j < row.length; j++) order(row[i]!, row[j]!);
    }
  }
  return later;
}

/** Kahn's algorithm; among free rules the one that appeared first goes first. */
function sortKeys(
  keys: readonly string[],
  later: ReadonlyMap<string, ReadonlySet<string>>,
  weight: ReadonlyMap<string, number>,
): { order: string[]; left: string[] } {
  const waiting = new Map(keys.map((key) => [key, 0]));
  for (const set of later.values()) for (const key of set) waiting.set(key, (waiting.get(key) ?? 0) + 1);
  const order: string[] = [];
  const left: string[] = [];
  const remaining = new Set(keys);
  const release = (key: string): void => {
    remaining.delete(key);
    for (const next of later.get(key) ?? []) waiting.set(next, waiting.get(next)! - 1);
  };
  while (remaining.size > 0) {
    let progressed = false;
    for (const key of [...remaining]) {
      if (waiting.get(key) !== 0) continue;
      order.push(key);
      release(key);
      progressed = true;
      if (hasFreedEarlier(key, later, waiting, remaining)) break;
    }
    if (progressed) continue;
    const rarest = [...remaining]
      .filter((key) => inCycle(key, later, remaining))
      .sort((a, b) => weight.get(a)! - weight.get(b)!)[0]!;
    left.push(rarest);
    release(rarest);
  }
  return { order, left };
}

/** Whether releasing a rule freed one that appeared before it, so that the scan must start over to keep first appearance. */
function hasFreedEarlier(
  key: string,
  later: ReadonlyMap<string, ReadonlySet<string>>,
  waiting: ReadonlyMap<string, number>,
  remaining: ReadonlySet<string>,
): boolean {
  for (const next of later.get(key) ?? []) if (remaining.has(next) && waiting.get(next) === 0) return true;
  return false;
}

function inCycle(
  key: string,
  later: ReadonlyMap<string, ReadonlySet<string>>,
  remaining: ReadonlySet<string>,
): boolean {
  const stack = [...(later.get(key) ?? [])];
  const seen = new Set<string>();
  while (stack.length > 0) {
    const at = stack.pop()!;
    if (at === key) return true;
    if (seen.has(at) || !remaining.has(at)) continue;
    seen.add(at);
    stack.push(...(later.get(at) ?? []));
  }
  return false;
}
