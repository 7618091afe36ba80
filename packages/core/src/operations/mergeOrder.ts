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
  const later = collectEdges(rules, sequences);
  return sortKeys([...first.keys()], later, weight);
}

/** Which rules come later than which on some page, of those that compete. Rules are numbered: pairs are asked for by millions. */
function collectEdges(
  rules: ReadonlyMap<string, Orderable>,
  sequences: readonly (readonly string[])[],
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
  /** By rule: what was found for each other rule; 0 not asked yet, 1 apart, 2 competing, 3 competing and standing later. */
  const known: Map<number, number>[] = [];
  const later = new Map<string, Set<string>>();
  const seen = new Set<string>();
  for (const sequence of sequences) {
    const row = sequence.map(numberOf);
    const whole = row.join();
    if (seen.has(whole)) continue;
    seen.add(whole);
    for (let i = 0; i < row.length; i++) {
      const a = row[i]!;
      const pairs = (known[a] ??= new Map<number, number>());
      for (let j = i + 1; j < row.length; j++) {
        const b = row[j]!;
        let found = pairs.get(b) ?? 0;
        if (found === 0) {
          const back = known[b]?.get(a) ?? 0;
          found = back > 0 ? Math.min(back, 2) : mayCompete(traits[a]!, traits[b]!) ? 2 : 1;
        }
        if (found === 2) {
          found = 3;
          let set = later.get(keys[a]!);
          if (!set) later.set(keys[a]!, (set = new Set()));
          set.add(keys[b]!);
        }
        pairs.set(b, found);
      }
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
