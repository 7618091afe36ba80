import type { Declaration, Rule } from '../sheet/sheet.ts';
import { parseSheet } from '../sheet/parseSheet.ts';

/** A style rule of a sheet, by where it stands. Nested rules follow the rule they stand in. */
export interface OutlinedRule {
  readonly start: number;
  /** After its closing brace. */
  readonly end: number;
  readonly selector: string;
  readonly selectorEnd: number;
  /** The at-rules it stands in, outermost first: `@media print`. */
  readonly under: readonly string[];
  readonly isNested: boolean;
  readonly declarations: readonly OutlinedDeclaration[];
}

export interface OutlinedDeclaration {
  readonly property: string;
  readonly value: string;
  readonly important: boolean;
  readonly start: number;
  readonly end: number;
  readonly valueStart: number;
  readonly valueEnd: number;
}

/** The style rules of a sheet in the order of its text. */
export function sheetOutline(text: string): readonly OutlinedRule[] {
  const out: OutlinedRule[] = [];
  const walk = (rules: readonly Rule[], under: readonly string[], isNested: boolean): void => {
    for (const rule of rules) {
      if (rule.kind === 'group') walk(rule.rules, [...under, `@${rule.name} ${rule.prelude}`.trim()], isNested);
      if (rule.kind !== 'style') continue;
      const { span, selector, selectorSpan } = rule;
      const more = rule.nested.flatMap((one) => (one.kind === 'declarations' ? one.declarations : []));
      const declarations = [...rule.declarations, ...more].map(outlined);
      out.push({
        start: span.start,
        end: span.end,
        selector,
        selectorEnd: selectorSpan.end,
        under,
        isNested,
        declarations,
      });
      walk(rule.nested, under, true);
    }
  };
  walk(parseSheet(text).rules, [], false);
  return out;
}

const outlined = ({ property, value, important, span, valueSpan }: Declaration): OutlinedDeclaration => ({
  property,
  value,
  important,
  start: span.start,
  end: span.end,
  valueStart: valueSpan.start,
  valueEnd: valueSpan.end,
});

/** The innermost rule at an offset; undefined between rules. */
export const ruleAt = (outline: readonly OutlinedRule[], offset: number): OutlinedRule | undefined =>
  outline.findLast(({ start, end }) => start <= offset && offset <= end);
