import { selectorsOfAnyBrowser } from '../../selectors/parseSelector.ts';

/**
 * A selector list that asks for the same inside pages whose `body` has a class, with the same specificity: `:where(.news) .notice`,
 * `body:where(.news) p`. Undefined where a selector may mean the root element, which stands above.
 *
 * Selectors 4, "The Specificity-adjustment Pseudo-class: :where()".
 */
export function scopedSelector(list: string, name: string): string | undefined {
  const selectors = selectorsOfAnyBrowser(list);
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
