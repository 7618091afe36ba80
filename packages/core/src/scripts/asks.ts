import type { Any, Constants } from './scriptTree.ts';

/** What a script asks of a text: whether, where or how often it holds another one, or a pattern. */
export type Ask = { readonly text: string } | { readonly pattern: string; readonly flags: string };

/** Methods of a text that ask for another one. */
export const asking = /^(indexOf|lastIndexOf|includes|startsWith|endsWith|search|match|matchAll|replace|replaceAll)$/;

/** 'any' where nobody can tell what is asked for; undefined where it comes from elsewhere: a name that is said somewhere. */
export function askOf(argument: Any | undefined, constants: Constants): Ask | 'any' | undefined {
  if (!argument) return 'any';
  const text = constants.textOf(argument);
  if (text !== undefined) return { text };
  const known = argument.type === 'Identifier' ? constants.onlyValue(argument.name!) : argument;
  const regex = known && (known as { regex?: { pattern: string; flags: string } }).regex;
  if (!regex) return undefined;
  return isQuick(regex.pattern) ? regex : 'any';
}

/** A pattern that takes no time to speak of on a short text: nothing repeated is repeated. */
const isQuick = (pattern: string): boolean =>
  pattern.length < 200 &&
  !/[*+}]\)?[^()]*\)[*+{]|\\\d|\(\?</.test(pattern) &&
  (pattern.match(/[*+{]/g) ?? []).length < 8;

/** Whether an answer about a value of `class` is another one for the second of two. */
export function answersDiffer(ask: Ask, before: string, after: string): boolean {
  if (before === after) return false;
  // scripts put a space on either side, or fold the case
  const spelled = (text: string): readonly string[] => [
    text,
    ` ${text} `,
    text.toLowerCase(),
    ` ${text.toLowerCase()} `,
  ];
  const [old, now] = [spelled(before), spelled(after)];
  if (old.some((text, i) => answer(ask, text) !== answer(ask, now[i]!))) return true;
  const known = new Set(before.split(/\s+/));
  return after.split(/\s+/).some((name) => name !== '' && !known.has(name) && holds(ask, ` ${name} `));
}

/** Whether something in a text is asked for: anything but white space. */
export function holds(ask: Ask, text: string): boolean {
  if ('text' in ask) return ask.text.trim() !== '' && text.includes(ask.text);
  const pattern = patternOf(ask, 'g');
  return pattern === undefined || [...text.slice(0, mostText).matchAll(pattern)].some(([found]) => /\S/.test(found));
}

function answer(ask: Ask, text: string): string {
  if ('text' in ask) return String(text.indexOf(ask.text));
  const pattern = patternOf(ask, '');
  if (!pattern) return text;
  const found = pattern.exec(text.slice(0, mostText));
  return found ? `${found.index} ${found[0].trim()}` : '';
}

const mostText = 1000;

function patternOf({ pattern, flags }: Extract<Ask, { pattern: string }>, more: string): RegExp | undefined {
  try {
    return new RegExp(pattern, flags.replace(/[gy]/g, '') + more);
  } catch {
    return undefined;
  }
}
