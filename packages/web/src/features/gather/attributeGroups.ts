import type { OperationBody } from '@syndeton/contract';

/** How a group of style attributes is remembered among what is chosen. */
export const attributeKey = (key: string): string => `style=\n${key}`;

/** The sheet a group of style attributes goes to with these operations. */
export function goesToSheet(operations: readonly OperationBody[], key: string): string | undefined {
  for (const operation of operations) {
    if (operation.kind !== 'gather-attributes') continue;
    const chosen = operation.only?.includes(key) ?? true;
    const excepted = operation.except?.some((one) => one.key === key && one.page === undefined) ?? false;
    if (chosen && !excepted) return operation.sheet;
  }
  return undefined;
}

/** The operation with the names a person gave to groups of attributes. */
export function renamed(operation: OperationBody, names: Readonly<Record<string, string>>): OperationBody {
  if (operation.kind !== 'gather-attributes' || Object.keys(names).length === 0) return operation;
  return { ...operation, names: { ...operation.names, ...names } };
}
