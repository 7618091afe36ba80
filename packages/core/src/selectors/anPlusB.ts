import { tokensOf, tokenTypes as T } from '../sheet/tokens.ts';
import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { unescapeCss } from '../values/unescape.ts';

/** Every `step`th from `offset` on, and the selectors behind `of`. */
export interface AnPlusB {
  readonly step: number;
  readonly offset: number;
  readonly of: string | undefined;
}

/** What stands in `:nth-child()`; undefined where browsers refuse it. CSS Syntax 3, "The An+B microsyntax"; Selectors 4, ":nth-child()". */
export function parseAnPlusB(text: string): AnPlusB | undefined {
  const parts = partsOf(text);
  const found = parts && /^(even|odd|[+-]?\d+|([+-]?\d*)n(?: *([+-]) *(\d+))?)$/i.exec(parts.formula);
  if (!found) return undefined;
  const formula = lowered(found[1]!);
  const { of } = parts;
  if (formula === 'even' || formula === 'odd') return { step: 2, offset: formula === 'odd' ? 1 : 0, of };
  if (!formula.includes('n')) return { step: 0, offset: Number(formula), of };
  const sign = found[2]!;
  const step = sign === '' || sign === '+' ? 1 : sign === '-' ? -1 : Number(sign);
  return { step, offset: found[4] === undefined ? 0 : Number(`${found[3]}${found[4]}`), of };
}

/** The formula without comments and escapes, with a space for white space. */
function partsOf(text: string): { readonly formula: string; readonly of: string | undefined } | undefined {
  const tokens = tokensOf(text);
  let formula = '';
  let isParted = false;
  for (let i = 0; i < tokens.count; i++) {
    const type = tokens.type[i]!;
    if (type === T.Comment) isParted = true;
    else if (type === T.WhiteSpace) {
      formula += ' ';
      isParted = false;
    } else {
      const written = text.slice(tokens.start[i], tokens.end[i]);
      const isName = type === T.Ident || type === T.Dimension;
      const part = isName ? unescapeCss(written) : written;
      if (isName && !/^[-\w]+$|^[+-]?\d+n/i.test(part)) return undefined;
      if (type === T.Ident && lowered(part) === 'of')
        return { formula: trimmed(formula), of: text.slice(tokens.end[i]) };
      if (isParted && !follows(formula, part)) return undefined;
      isParted = false;
      formula += part;
    }
  }
  return { formula: trimmed(formula), of: undefined };
}

/** Whether a part may stand behind another with only a comment between the two. */
const follows = (before: string, part: string): boolean =>
  before === '' ||
  before.endsWith(' ') ||
  (/n$/i.test(before) && /^[-+]/.test(part)) ||
  (/n *[-+]$/i.test(before) && /^\d/.test(part)) ||
  (before === '+' && /^n/i.test(part));
