import { parseSheet } from '../../sheet/parseSheet.ts';
import { tokensOf, tokenTypes as T } from '../../sheet/tokens.ts';
import { applyEdits } from '../../source/applyEdits.ts';

/** A rule's text with another selector. */
export function withSelector(rule: string, selector: string): string {
  const tokens = tokensOf(rule);
  for (let i = 0; i < tokens.count; i++)
    if (tokens.type[i] === T.LeftCurlyBracket) {
      const block = rule.slice(tokens.start[i]);
      const gap = /[ \t\r\n]*$/.exec(rule.slice(0, tokens.start[i]))![0];
      return `${selector}${gap}${block}`;
    }
  return rule;
}

/** A rule's text with its declarations of these properties only, as its author wrote them; empty when it has none. */
export function partOfRule(rule: string, properties: readonly string[]): string {
  const [read] = parseSheet(rule).rules;
  if (read?.kind !== 'style') return rule;
  const wanted = new Set(properties);
  const gone = read.declarations.filter(({ property }) => !wanted.has(property));
  if (gone.length === read.declarations.length) return '';
  const done = applyEdits(
    rule,
    gone.map(({ span }) => ({ span: withEnd(rule, span.start, span.end), text: '' })),
  );
  if (!done.ok) throw new Error(`declarations overlap in ${rule}`);
  return done.value;
}

/** With its semicolon, and with the line or the space it stood on. */
function withEnd(text: string, start: number, end: number): { readonly start: number; readonly end: number } {
  const closing = /^(?:[\t\n\f\r ]|\/\*[^]*?\*\/)*;/.exec(text.slice(end));
  let to = closing ? end + closing[0].length : end;
  let from = start;
  while (/[ \t]/.test(text[from - 1] ?? '')) from--;
  const ownLine = /[\r\n]/.test(text[from - 1] ?? '');
  const rest = /^[ \t]*(\r\n|\n|\r)/.exec(text.slice(to));
  if (ownLine && rest) to += rest[0].length;
  return { start: from, end: to };
}
