import { lowered } from '../source/asciiCase.ts';
import { ident } from 'css-tree';
import { tokensOf, tokenTypes as T, type Tokens } from '../sheet/tokens.ts';

/**
 * A condition of `@media` or `@supports`, read. A leaf is a feature or function: `name` is the function's, `inside` its
 * argument or what stands in the parentheses. `lost` is a tree too deep to read.
 */
export type ConditionTree =
  | { readonly kind: 'not'; readonly of: ConditionTree }
  | { readonly kind: 'and' | 'or'; readonly of: readonly ConditionTree[] }
  | { readonly kind: 'leaf'; readonly name?: string; readonly inside: Part }
  | { readonly kind: 'lost' };

/** Tokens without white space and comments, from `from` to before `to` of `list`. */
export interface Part {
  readonly tokens: Tokens;
  readonly list: readonly number[];
  readonly from: number;
  readonly to: number;
}

const maxDepth = 100;
const opens: Readonly<Record<number, number>> = {
  [T.LeftParenthesis]: T.RightParenthesis,
  [T.Function]: T.RightParenthesis,
  [T.LeftSquareBracket]: T.RightSquareBracket,
  [T.LeftCurlyBracket]: T.RightCurlyBracket,
};
const closers = new Set([T.RightParenthesis, T.RightSquareBracket, T.RightCurlyBracket]);
const spoilt = new Set([T.BadString, T.BadUrl, T.Semicolon]);

/** A text as a part. Undefined when brackets do not pair or a token is bad; an open bracket closes at the end. */
export function partOf(text: string): Part | undefined {
  const tokens = tokensOf(text);
  const list: number[] = [];
  const open: number[] = [];
  for (let i = 0; i < tokens.count; i++) {
    const type = tokens.type[i]!;
    if (type === T.WhiteSpace || type === T.Comment) continue;
    list.push(i);
    const closer = opens[type];
    if (closer !== undefined) open.push(closer);
    else if (closers.has(type) && open.pop() !== type) return undefined;
    else if (spoilt.has(type) && (type !== T.Semicolon || open.length === 0)) return undefined;
  }
  return { tokens, list, from: 0, to: list.length };
}

export const typeAt = (part: Part, i: number): number | undefined =>
  i < part.to ? part.tokens.type[part.list[i]!] : undefined;

/** The token as written. */
export const textAt = (part: Part, i: number): string =>
  part.tokens.text.slice(part.tokens.start[part.list[i]!], part.tokens.end[part.list[i]!]);

/** The name an identifier or function token spells, in lower case; empty for other tokens. */
export function nameAt(part: Part, i: number): string {
  const type = typeAt(part, i);
  if (type === T.Ident) return lowered(ident.decode(textAt(part, i)));
  return type === T.Function ? lowered(ident.decode(textAt(part, i).slice(0, -1))) : '';
}

/** What the part says, white space and comments between its tokens as written. */
export function textOfPart(part: Part): string {
  if (part.from >= part.to) return '';
  return part.tokens.text.slice(part.tokens.start[part.list[part.from]!], part.tokens.end[part.list[part.to - 1]!]);
}

export const subpart = (part: Part, from: number, to = part.to): Part => ({ ...part, from, to });

/** Splits a part at commas that stand outside brackets. */
export function splitAtCommas(part: Part): readonly Part[] {
  const out: Part[] = [];
  let from = part.from;
  for (let i = from; i < part.to; i = afterBracket(part, i))
    if (typeAt(part, i) === T.Comma) {
      out.push(subpart(part, from, i));
      from = i + 1;
    }
  return [...out, subpart(part, from)];
}

/** The place after the token, or after the bracket it opens. */
function afterBracket(part: Part, at: number): number {
  let depth = 0;
  for (let i = at; i < part.to; i++) {
    const type = typeAt(part, i)!;
    if (opens[type] !== undefined) depth++;
    else if (closers.has(type)) depth--;
    if (depth <= 0) return i + 1;
  }
  return part.to;
}

/**
 * Reads `not <in-parens>`, `<in-parens> and …` or `<in-parens> or …`; undefined when the text is none of these.
 *
 * Media Queries 4, "Syntax"; CSS Conditional Rules 3, "Feature queries".
 */
export function readCondition(part: Part, depth = 0): ConditionTree | undefined {
  if (depth > maxDepth) return { kind: 'lost' };
  if (typeAt(part, part.from) === T.Ident && nameAt(part, part.from) === 'not') {
    const of = readInParentheses(part, part.from + 1, depth);
    return of?.to === part.to ? { kind: 'not', of: of.tree } : undefined;
  }
  const first = readInParentheses(part, part.from, depth);
  if (!first || first.to === part.to) return first?.tree;
  const word = nameAt(part, first.to);
  if (word !== 'and' && word !== 'or') return undefined;
  const of = [first.tree];
  let at = first.to;
  while (at < part.to) {
    if (typeAt(part, at) !== T.Ident || nameAt(part, at) !== word) return undefined;
    const next = readInParentheses(part, at + 1, depth);
    if (!next) return undefined;
    of.push(next.tree);
    at = next.to;
  }
  return { kind: word, of };
}

function readInParentheses(part: Part, at: number, depth: number): { tree: ConditionTree; to: number } | undefined {
  const type = typeAt(part, at);
  if (type !== T.LeftParenthesis && type !== T.Function) return undefined;
  const to = afterBracket(part, at);
  const closed = typeAt(part, to - 1) === T.RightParenthesis && to - 1 > at;
  const inside = subpart(part, at + 1, closed && isBalanced(part, at, to) ? to - 1 : to);
  if (type === T.Function) return { tree: { kind: 'leaf', name: nameAt(part, at), inside }, to };
  return { tree: readCondition(inside, depth + 1) ?? { kind: 'leaf', inside }, to };
}

/** Whether the bracket opened at `at` is closed by the last token, not by the end of the text. */
function isBalanced(part: Part, at: number, to: number): boolean {
  let depth = 0;
  for (let i = at; i < to; i++) {
    const type = typeAt(part, i)!;
    if (opens[type] !== undefined) depth++;
    else if (closers.has(type)) depth--;
  }
  return depth === 0;
}
