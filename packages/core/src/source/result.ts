/** What a function returns that a user's input can make fail: problems are data, only bugs throw. */
export type Result<Value, Problem> =
  | { readonly ok: true; readonly value: Value }
  | { readonly ok: false; readonly problem: Problem };

export const succeed = <Value>(value: Value): { readonly ok: true; readonly value: Value } => ({ ok: true, value });
export const fail = <Problem>(problem: Problem): { readonly ok: false; readonly problem: Problem } => ({
  ok: false,
  problem,
});
