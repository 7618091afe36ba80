import type { Declaration, Rule, StyleRule } from '../../sheet/sheet.ts';
import { wholeLines, wholeLinesAndGap } from '../../source/removal.ts';
import type { Edit, Span } from '../../source/span.ts';

/** The style rules of a sheet, those inside conditions, layers and other rules too. */
export function* styleRules(rules: readonly Rule[]): Iterable<StyleRule> {
  for (const rule of rules) {
    if (rule.kind === 'style') {
      yield rule;
      yield* styleRules(rule.nested);
    } else if (rule.kind === 'group') yield* styleRules(rule.rules);
  }
}

/** The edits that take declarations out of a rule: their lines go, or the whole rule when nothing else is in it. */
export function dropFromRule(
  text: string,
  rule: StyleRule,
  gone: ReadonlySet<Declaration>,
  contents: Span,
): readonly Edit[] {
  if (gone.size === 0) return [];
  const left = rule.declarations.some((one) => !gone.has(one)) || rule.nested.length > 0;
  if (!left && rule.closed) return [{ span: wholeLinesAndGap(text, rule.span, contents), text: '' }];
  return [...gone].map((one) => ({ span: declarationSpan(text, one.span), text: '' }));
}

/** From the name to the semicolon, on lines of its own when nothing else stands there; else with the white space after it. */
export function declarationSpan(text: string, span: Span): Span {
  const after = /^[\t\n\f\r ]*;/.exec(text.slice(span.end, span.end + 200));
  const end = after ? span.end + after[0].length : span.end;
  const lines = wholeLines(text, { start: span.start, end });
  if (lines.start !== span.start || lines.end !== end) return lines;
  const space = /^[\t ]+/.exec(text.slice(end, end + 200));
  return { start: span.start, end: end + (space?.[0].length ?? 0) };
}
