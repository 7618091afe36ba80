import type { Group } from '../../survey/blockUnits.ts';
import { tokensOf, tokenTypes as T } from '../../sheet/tokens.ts';
import { printReference, urlReferences } from '../../sheet/urlReferences.ts';
import { applyEdits } from '../../source/applyEdits.ts';
import { withLineEnds } from '../../source/lineEnds.ts';
import { rebaseReference, type Base } from '../../values/urls.ts';

/** A rule's text with its references counted from `sheetPath`; undefined when one cannot be. */
export function rebasedText(text: string, base: Base, sheetPath: string): string | undefined {
  // most rules name no address; an escape could spell a function in another way
  if (!/url|src|image-set|import|\\/i.test(text)) return text;
  const edits = [];
  for (const { reference, span } of urlReferences(text)) {
    const rebased = rebaseReference(reference, base, sheetPath);
    if (rebased === undefined) return undefined;
    if (rebased !== reference) edits.push({ span, text: printReference(rebased, text.slice(span.start, span.end)) });
  }
  const done = applyEdits(text, edits);
  if (!done.ok) throw new Error(`references overlap in ${text}`);
  return done.value;
}

/** What closes a rule whose source ended inside it, or undefined when a string, comment or address is left open. */
export function closingText(text: string): string | undefined {
  const tokens = tokensOf(text);
  const open: string[] = [];
  for (let i = 0; i < tokens.count; i++) {
    const type = tokens.type[i]!;
    if (type === T.LeftCurlyBracket) open.push('}');
    else if (type === T.LeftSquareBracket) open.push(']');
    else if (type === T.LeftParenthesis || type === T.Function) open.push(')');
    else if (text.slice(tokens.start[i], tokens.end[i]) === open.at(-1)) open.pop();
    if (type === T.BadString || type === T.BadUrl) return undefined;
  }
  const last = tokens.count - 1;
  const raw = last >= 0 ? text.slice(tokens.start[last], tokens.end[last]) : '';
  if (tokens.type[last] === T.Comment && !(raw.length >= 4 && raw.endsWith('*/'))) return undefined;
  if (tokens.type[last] === T.String && !(raw.length >= 2 && raw.endsWith(raw[0]!))) return undefined;
  if (tokens.type[last] === T.Url && !raw.endsWith(')')) return undefined;
  if (raw.endsWith('\\')) return undefined;
  return open.reverse().join('');
}

/** The text moved to the left margin, line ends as given. A text with an escaped line end keeps its lines as they are. */
export function dedented(text: string, indentation: string, lineEnd: string): string {
  if (/\\[\r\n]/.test(text)) return text;
  const lines = withLineEnds(text, '\n').split('\n');
  const out = lines.map((line, i) =>
    i > 0 && line.startsWith(indentation)
      ? line.slice(indentation.length)
      : i > 0
        ? line.replace(/^[ \t]+(?=\})/, '')
        : line,
  );
  return out.join(lineEnd);
}

export function indented(text: string, by: string, lineEnd: string): string {
  if (/\\[\r\n]/.test(text)) return text;
  return text
    .split(lineEnd)
    .map((line) => (line === '' ? line : by + line))
    .join(lineEnd);
}

/** `@media print {` … one line per group, outermost first. */
export const openGroups = (groups: readonly Group[]): readonly string[] =>
  groups.map((g) => `@${g.name}${g.prelude === '' ? '' : ` ${g.prelude}`} {`);

/**
 * Characters beyond ASCII written as escapes, outside comments, so that the text reads the same in every encoding.
 * CSS Syntax 3, "Escaping".
 */
export function asciiText(text: string): string {
  if (/^[\0-\x7f]*$/.test(text)) return text;
  const tokens = tokensOf(text);
  let out = '';
  for (let i = 0; i < tokens.count; i++) {
    const raw = text.slice(tokens.start[i], tokens.end[i]);
    out +=
      tokens.type[i] === T.Comment ? raw : raw.replace(/[^\0-\x7f]/gu, (c) => `\\${c.codePointAt(0)!.toString(16)} `);
  }
  return out;
}
