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

/** Splits at a word (`and`, `or`) or comma that stands outside parentheses and strings. */
export function splitOutside(text: string, separator: RegExp): string[] {
  const out: string[] = [];
  let depth = 0;
  let from = 0;
  for (let i = 0; i < text.length; i++) {
    const char = text[i]!;
    if (char === '\\') i++;
    else if (char === '"' || char === "'") {
      const end = text.indexOf(char, i + 1);
      i = end < 0 ? text.length : end;
    } else if (char === '(') depth++;
    else if (char === ')') depth--;
    else if (depth === 0) {
      separator.lastIndex = i;
      const found = separator.exec(text);
      if (!found) continue;
      out.push(text.slice(from, i));
      i += found[0].length - 1;
      from = i + 1;
    }
  }
  out.push(text.slice(from));
  return out;
}
