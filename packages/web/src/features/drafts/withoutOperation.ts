import type { OperationBody } from '@syndeton/contract';

/** The list without the operation that was seen at a place, wherever it stands by now; the same list when it is gone. */
export function withoutOperation(
  operations: readonly OperationBody[],
  seen: OperationBody | undefined,
  index: number,
): readonly OperationBody[] {
  if (seen === undefined) return operations;
  const key = JSON.stringify(seen);
  const isIt = (one: OperationBody | undefined): boolean => one !== undefined && JSON.stringify(one) === key;
  const at = isIt(operations[index]) ? index : operations.findLastIndex(isIt);
  return at < 0 ? operations : operations.filter((_, i) => i !== at);
}
