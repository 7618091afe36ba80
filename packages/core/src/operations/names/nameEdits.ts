import { tokensOf, tokenTypes as T } from '../../sheet/tokens.ts';
import { parseSheet } from '../../sheet/parseSheet.ts';
import type { Rule } from '../../sheet/sheet.ts';
import type { Edit, Span } from '../../source/span.ts';
import { unescapeCss } from '../../values/unescape.ts';

/** What a name is of. */
export type NameKind = 'class' | 'id' | 'custom-property';

/** A name is changed in its own case only; the text stands from `start` in its file. */
export interface Renaming {
  readonly of: NameKind;
  readonly from: string;
  readonly to: string;
}

/** The edits that rename in a sheet's or block's text: selectors, or declarations and `var()`. */
export function nameEditsInSheet(text: string, span: Span, renaming: Renaming): readonly Edit[] {
  if (!text.slice(span.start, span.end).includes(renaming.from) && !text.includes('\\')) return [];
  if (renaming.of === 'custom-property') return customPropertyEdits(text, span, renaming);
  const out: Edit[] = [];
  const walk = (rules: readonly Rule[]): void => {
    for (const rule of rules) {
      if (rule.kind === 'style') {
        out.push(...selectorEdits(text, rule.selectorSpan, renaming));
        walk(rule.nested);
      } else if (rule.kind === 'group') {
        const head = { start: rule.span.start, end: rule.blockSpan.start };
        if (rule.name === 'scope' || rule.name === 'supports') out.push(...selectorEdits(text, head, renaming));
        walk(rule.rules);
      }
    }
  };
  walk(parseSheet(text, span.start, span.end).rules);
  return out;
}

function selectorEdits(text: string, span: Span, { of, from, to }: Renaming): readonly Edit[] {
  const t = tokensOf(text, span.start, span.end);
  const out: Edit[] = [];
  for (let i = 0; i < t.count; i++) {
    const [start, end] = [t.start[i]!, t.end[i]!];
    const written = text.slice(start, end);
    if (of === 'id' && t.type[i] === T.Hash && unescapeCss(written.slice(1)) === from)
      out.push({ span: { start: start + 1, end }, text: to });
    const isClass = t.type[i] === T.Ident && t.type[i - 1] === T.Delim && text[t.start[i - 1]!] === '.';
    if (of === 'class' && isClass && unescapeCss(written) === from) out.push({ span: { start, end }, text: to });
    const value = attributeValue(text, t, i, of);
    if (value && unescapeCss(text.slice(value.start, value.end)) === from) out.push({ span: value, text: to });
  }
  return out;
}

/** The value of `[class~=name]` or `[id=name]`, inside its quotes. */
function attributeValue(text: string, t: ReturnType<typeof tokensOf>, i: number, of: NameKind): Span | undefined {
  const solid: number[] = [];
  for (let at = i + 1; at < t.count && solid.length < 4; at++)
    if (t.type[at] !== T.WhiteSpace && t.type[at] !== T.Comment) solid.push(at);
  if (t.type[i] !== T.LeftSquareBracket) return undefined;
  const [name, sign, ...rest] = solid;
  if (name === undefined || sign === undefined || text.slice(t.start[name], t.end[name]).toLowerCase() !== of)
    return undefined;
  const signs = text[t.start[sign]!];
  const at = of === 'class' ? (signs === '~' ? rest[1] : undefined) : signs === '=' ? rest[0] : undefined;
  if (at === undefined) return undefined;
  const quoted = t.type[at] === T.String ? 1 : 0;
  return { start: t.start[at]! + quoted, end: t.end[at]! - quoted };
}

/** Dashed names wherever they stand: as a property, in `var()`, in `@property`. CSS Custom Properties 1: names compare by case. */
function customPropertyEdits(text: string, span: Span, { from, to }: Renaming): readonly Edit[] {
  const t = tokensOf(text, span.start, span.end);
  const out: Edit[] = [];
  for (let i = 0; i < t.count; i++) {
    const own = { start: t.start[i]!, end: t.end[i]! };
    if (t.type[i] === T.Ident && unescapeCss(text.slice(own.start, own.end)) === from)
      out.push({ span: own, text: to });
  }
  return out;
}

/** A name that needs no escapes in sheets, whatever the encoding. CSS Syntax 3, "ident-token diagram". */
export const isPlainName = (name: string, of: NameKind): boolean =>
  of === 'custom-property' ? /^--[\w-]+$/.test(name) : /^-?[A-Za-z_][\w-]*$/.test(name);
