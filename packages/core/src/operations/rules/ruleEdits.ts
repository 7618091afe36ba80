import type { Declaration, StyleRule } from '../../sheet/sheet.ts';
import { withSemicolon } from '../../checks/hiddenDeclarations.ts';
import { lineEndOf } from '../../source/lineEnds.ts';
import { indentationAt } from '../../source/removal.ts';
import type { Edit } from '../../source/span.ts';

/** What a declaration is to say. */
export interface Said {
  readonly property: string;
  readonly value: string;
  readonly important?: boolean;
}

/**
 * The edit that lets a rule say something: where it says the property already, the last such declaration takes the value; else it
 * is written after the last one, in the rule's own manner.
 */
export function setInRule(text: string, rule: StyleRule, { property, value, important = false }: Said): Edit {
  const written = value + (important ? ' !important' : '');
  const own = rule.declarations.findLast((one) => one.property === property);
  if (own) return { span: { start: own.valueSpan.start, end: own.span.end }, text: written };
  const last = rule.declarations.at(-1);
  if (!last) {
    const at = text.indexOf('{', rule.selectorSpan.end) + 1;
    return { span: { start: at, end: at }, text: ` ${property}: ${written};${text[at] === '}' ? ' ' : ''}` };
  }
  const colon = /:[^\t\n\f\r ]/.test(text.slice(last.span.start, last.valueSpan.start + 1)) ? ':' : ': ';
  const indent = indentationAt(text, last.span.start);
  const gap = indent === '' ? ' ' : lineEndOf(text) + indent;
  const semicolon = /^[\t\n\f\r ]*;/.exec(text.slice(last.span.end));
  const at = last.span.end + (semicolon?.[0].length ?? 0);
  const said = `${gap}${property}${colon}${written}`;
  return { span: { start: at, end: at }, text: semicolon ? `${said};` : `;${said}` };
}

/** The edit that takes a declaration out of its rule. */
export const dropFromRule = (text: string, declaration: Declaration): Edit => ({
  span: withSemicolon(text, declaration),
  text: '',
});

/** A rule as this sheet's author would write it. */
export function printedRule(
  selector: string,
  declarations: readonly Said[],
  { oneLine, indent }: { readonly oneLine: boolean; readonly indent: string },
  lineEnd: string,
): string {
  const said = declarations.map(
    ({ property, value, important }) => `${property}: ${value}${important ? ' !important' : ''};`,
  );
  return oneLine
    ? `${selector} { ${said.join(' ')} }`
    : [`${selector} {`, ...said.map((one) => indent + one), '}'].join(lineEnd);
}
