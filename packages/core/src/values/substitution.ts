import { lowered } from '../source/asciiCase.ts';
import { ident } from 'css-tree';
import { tokenize, tokenTypes } from './cssTokens.ts';

/** Functions that stand for something known later only: CSS Values and Units 5, "Arbitrary Substitution Functions". */
const names = /^(var|env|attr|if|sibling-index|sibling-count|random|random-item|inherit|toggle|--.*)$/;
const suspect = /(var|env|attr|if|sibling-index|sibling-count|random|random-item|inherit|toggle)\(|--[^;]*\(|\\/i;

/** The name of a substitution function in the value, `var` before others; undefined when it holds none. */
export function substitutionIn(value: string): string | undefined {
  if (!suspect.test(value)) return undefined;
  let found: string | undefined;
  tokenize(value, (type: number, start: number, end: number) => {
    if (type !== tokenTypes.Function || found === 'var') return;
    const name = lowered(ident.decode(value.slice(start, end - 1)));
    if (names.test(name)) found = name;
  });
  return found;
}

export const holdsSubstitution = (value: string): boolean => substitutionIn(value) !== undefined;

/**
 * Whether each `var()` is written as one: a custom property's name, then nothing or a comma. Browsers drop a declaration with another.
 *
 * CSS Custom Properties for Cascading Variables 1, "Using Cascading Variables: the var() notation".
 */
export function everyVarNamesOne(value: string): boolean {
  const tokens: { type: number; text: string }[] = [];
  tokenize(value, (type: number, start: number, end: number) => {
    if (type !== tokenTypes.WhiteSpace && type !== tokenTypes.Comment)
      tokens.push({ type, text: value.slice(start, end) });
  });
  return tokens.every(({ type, text }, i) => {
    if (type !== tokenTypes.Function || lowered(ident.decode(text.slice(0, -1))) !== 'var') return true;
    const [name, after] = [tokens[i + 1], tokens[i + 2]];
    if (name?.type !== tokenTypes.Ident || !/^--./s.test(ident.decode(name.text))) return false;
    return after === undefined || after.type === tokenTypes.RightParenthesis || after.type === tokenTypes.Comma;
  });
}
