/** True, false, or cannot be told. Media Queries 4, "Evaluating Media Queries" (three-valued logic). */
export type Answer = boolean | undefined;

export const negate = (answer: Answer): Answer => (answer === undefined ? undefined : !answer);

export function allOf(answers: readonly Answer[]): Answer {
  if (answers.includes(false)) return false;
  return answers.includes(undefined) ? undefined : true;
}

export function anyOf(answers: readonly Answer[]): Answer {
  if (answers.includes(true)) return true;
  return answers.includes(undefined) ? undefined : false;
}
