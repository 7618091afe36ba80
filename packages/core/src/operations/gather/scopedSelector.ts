import { parseSelectorList } from '../../selectors/parseSelector.ts';
import { tokensOf, tokenTypes as T } from '../../sheet/tokens.ts';

/**
 * A selector list that asks for the same inside pages whose `body` has a class, with the same specificity: `:where(.news) .notice`,
 * `body:where(.news) p`. Undefined where a selector may mean the root element, which stands above.
 *
 * Selectors 4, "The Specificity-adjustment Pseudo-class: :where()".
 */
export function scopedSelector(list: string, name: string): string | undefined {
  const selectors = parseSelectorList(list);
  if (!selectors) return undefined;
  const out: string[] = [];
  for (const { compounds, text } of selectors) {
    const [first] = compounds;
    const type = first!.simples.find((simple) => simple.kind === 'type');
    if (first!.simples.some((s) => s.kind === 'pseudo-class' && s.name === 'root') || type?.lower === 'html')
      return undefined;
    out.push(
      type?.lower === 'body' ? `${text.slice(0, 4)}:where(.${name})${text.slice(4)}` : `:where(.${name}) ${text}`,
    );
  }
  return out.join(', ');
}

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
