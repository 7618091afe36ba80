import type { OperationBody } from '@syndeton/contract';

/** Pages whose look somebody chose to change: another version of a rule took the place of theirs. */
export const intendedPages = (operations: readonly OperationBody[]): ReadonlySet<string> =>
  new Set(operations.flatMap((one) => (one.kind === 'settle-drift' ? (one.pages ?? []) : [])));
