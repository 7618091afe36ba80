import type { Operation } from './operation.ts';

/**
 * What one person did to a list of operations, done again on the list as it is now.
 *
 * `from` is the list they began with, `mine` what they made of it. Operations they took out are taken out of `now` where they still
 * stand; those they put in go behind the one that stood before them, or to the end when that one is gone. Operations are told apart
 * by what they say; the same one standing twice counts twice.
 */
export function redoOnTop(
  from: readonly Operation[],
  mine: readonly Operation[],
  now: readonly Operation[],
): readonly Operation[] {
  const out = now.map((operation) => ({ operation, key: keyOf(operation) }));
  const begun = countsOf(from.map(keyOf));
  const fresh = mine.map((operation) => {
    const key = keyOf(operation);
    const left = begun.get(key) ?? 0;
    if (left > 0) begun.set(key, left - 1);
    return { operation, key, isNew: left === 0 };
  });
  for (const [key, times] of begun)
    for (let i = 0; i < times; i++) {
      const at = out.findLastIndex((one) => one.key === key);
      if (at >= 0) out.splice(at, 1);
    }
  let behind: number | undefined = -1;
  for (const { operation, key, isNew } of fresh) {
    if (isNew) {
      const at: number = behind === undefined ? out.length : behind + 1;
      out.splice(at, 0, { operation, key });
      behind = at;
    } else {
      const at = out.findIndex((one, i) => one.key === key && i > (behind ?? -1));
      behind = at < 0 ? undefined : at;
    }
  }
  return out.map(({ operation }) => operation);
}

/** How many operations one list holds that another does not. */
export function operationsBeyond(list: readonly Operation[], other: readonly Operation[]): number {
  const counts = countsOf(other.map(keyOf));
  let beyond = 0;
  for (const key of list.map(keyOf)) {
    const left = counts.get(key) ?? 0;
    if (left > 0) counts.set(key, left - 1);
    else beyond++;
  }
  return beyond;
}

function countsOf(keys: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const key of keys) counts.set(key, (counts.get(key) ?? 0) + 1);
  return counts;
}

/** What an operation says, however its fields are ordered: databases do not keep their order. */
const keyOf = (operation: Operation): string => JSON.stringify(sorted(operation));

function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, one]) => [key, sorted(one)]),
  );
}
