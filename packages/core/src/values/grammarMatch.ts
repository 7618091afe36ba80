import type { DSNode } from 'css-tree';
import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { browserLexer as lexer } from './browserLexer.ts';
import { parsedValue, tokenize, tokenTypes } from './cssTokens.ts';

/** What the grammar says of a value; `broken`: no value at all, such as a string left open; `open`: it gave up looking. */
export type GrammarMatch = 'taken' | 'refused' | 'broken' | 'open';

export function grammarMatch(property: string, value: string): GrammarMatch {
  const list = listSyntaxOf(property);
  // one by one, since the ways to part a list's items grow with their product
  if (list === undefined) return matchOf(property, value);
  const items = itemsOf(value);
  if (items.length === 1) return matchOf(property, value);
  const found = items.map((item) => (list.alone.has(lowered(trimmed(item))) ? 'refused' : matchOf(property, item)));
  return (['broken', 'refused', 'open'] as const).find((worst) => found.includes(worst)) ?? 'taken';
}

/** Chromium takes a border up to a comma, as in `1px solid, red`; other browsers drop it. */
export function isTakenUpToComma(property: string, value: string): boolean {
  if (!/^border(-block|-inline)?$/.test(property)) return false;
  const [first, ...more] = itemsOf(value);
  return more.length > 0 && matchOf(property, first!) === 'taken';
}

function matchOf(property: string, value: string): GrammarMatch {
  try {
    const { error } = lexer.matchProperty(property, parsedValue(value));
    if (error === null) return 'taken';
    return error.message.startsWith('Maximum iteration') ? 'open' : 'refused';
  } catch {
    return 'broken';
  }
}

interface ListSyntax {
  /** Keywords that stand alone, in no list. */
  readonly alone: ReadonlySet<string>;
}

/** A property whose value is `<item>#`, or a keyword in its place. */
function listSyntaxOf(property: string): ListSyntax | undefined {
  let known = lists.get(property);
  if (known === undefined) lists.set(property, (known = readListSyntax(property)));
  return known ?? undefined;
}

const lists = new Map<string, ListSyntax | null>();

function readListSyntax(property: string): ListSyntax | null {
  const { syntax } = lexer.getProperty(property) as unknown as { readonly syntax?: DSNode };
  const isChoice = syntax?.type === 'Group' && (syntax.combinator === '|' || syntax.terms.length === 1);
  const terms = isChoice ? syntax.terms : [syntax];
  const alone = new Set(['initial', 'inherit', 'unset', 'revert', 'revert-layer']);
  let isList = false;
  for (const term of terms) {
    if (term?.type === 'Keyword') alone.add(term.name);
    else if (term?.type === 'Multiplier' && term.comma && term.min === 1 && term.max === 0) isList = true;
    else return null;
  }
  return isList ? { alone } : null;
}

/** What stands between the commas outside brackets. */
function itemsOf(value: string): readonly string[] {
  const items: string[] = [];
  let depth = 0;
  let from = 0;
  tokenize(value, (type, start, end) => {
    if (openers.has(type)) depth++;
    else if (closers.has(type)) depth--;
    else if (type === tokenTypes.Comma && depth === 0) {
      items.push(value.slice(from, start));
      from = end;
    }
  });
  items.push(value.slice(from));
  return items;
}

const openers = new Set([
  tokenTypes.Function,
  tokenTypes.LeftParenthesis,
  tokenTypes.LeftSquareBracket,
  tokenTypes.LeftCurlyBracket,
]);
const closers = new Set([tokenTypes.RightParenthesis, tokenTypes.RightSquareBracket, tokenTypes.RightCurlyBracket]);
