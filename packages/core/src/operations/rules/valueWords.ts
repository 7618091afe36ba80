import { tokensOf, tokenTypes as T } from '../../sheet/tokens.ts';
import type { Span } from '../../source/span.ts';

/** The words of a value, functions whole: `1px`, `solid`, `rgb(0, 0, 0)`; commas, slashes and white space part them. */
export function valueWords(value: string): readonly Span[] {
  const t = tokensOf(value);
  const out: Span[] = [];
  let depth = 0;
  let from: number | undefined;
  const end = (at: number): void => {
    if (from !== undefined) out.push({ start: from, end: at });
    from = undefined;
  };
  for (let i = 0; i < t.count; i++) {
    const type = t.type[i]!;
    const [start, stop] = [t.start[i]!, t.end[i]!];
    const parts =
      type === T.WhiteSpace || type === T.Comment || type === T.Comma || (type === T.Delim && value[start] === '/');
    if (depth === 0 && parts) end(start);
    else from ??= start;
    if (type === T.Function || type === T.LeftParenthesis) depth++;
    else if (type === T.RightParenthesis && --depth === 0) end(stop);
  }
  end(value.length);
  return out;
}
