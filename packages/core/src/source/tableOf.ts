/** A table that is asked by names others chose: it has its own and no more, where an object would have `constructor` as well. */
export const tableOf = <Value>(entries: Readonly<Record<string, Value>>): Readonly<Record<string, Value>> =>
  Object.assign(Object.create(null) as Record<string, Value>, entries);
