import { lowered } from '../source/asciiCase.ts';
import { trimmed } from '../source/space.ts';
import { attributeOf } from '../page/nodes.ts';
import { parseDeclarations, parseSheet } from '../sheet/parseSheet.ts';
import type { Declaration, Rule } from '../sheet/sheet.ts';
import { pagesOf, sheetsOf, type Site } from '../source/site.ts';
import { LineIndex } from '../source/span.ts';
import { openPage } from '../survey/openPage.ts';
import { comparableValue } from '../values/comparableValue.ts';

/** A declaration that says a value, or says it among others. */
export interface ValuePlace {
  readonly kind: 'sheet' | 'block' | 'attribute';
  readonly path: string;
  readonly line: number;
  readonly selector: string;
  readonly property: string;
  readonly value: string;
}

/**
 * Where a value stands on the site: a colour in whatever notation, a font, a length, anything a declaration says in one piece.
 * In sheets, embedded blocks and style attributes, in page order.
 */
export function valuePlaces(site: Site, value: string): readonly ValuePlace[] {
  const says = sayer(value);
  const out: ValuePlace[] = [];
  const inRules = (
    rules: readonly Rule[],
    found: (selector: string, one: Declaration) => void,
    selector = '',
  ): void => {
    for (const rule of rules) {
      if (rule.kind === 'style') {
        for (const one of rule.declarations) if (says(one)) found(rule.selector, one);
        inRules(rule.nested, found, rule.selector);
      } else if (rule.kind === 'group') inRules(rule.rules, found, selector);
      else if (rule.kind === 'declarations') for (const one of rule.declarations) if (says(one)) found(selector, one);
    }
  };
  for (const { path, text = '' } of sheetsOf(site)) {
    const lines = new LineIndex(text);
    inRules(parseSheet(text).rules, (selector, { property, value: said, span }) =>
      out.push({ kind: 'sheet', path, line: lines.placeOf(span.start).line, selector, property, value: said }),
    );
  }
  for (const file of pagesOf(site)) {
    const page = openPage(file);
    if (!page) continue;
    const { path, lines } = page;
    for (const block of page.blocks)
      inRules(block.sheet.rules, (selector, { property, value: said, span }) =>
        out.push({ kind: 'block', path, line: lines.placeOf(span.start).line, selector, property, value: said }),
      );
    for (const element of page.tree.elements) {
      const style = attributeOf(element, 'style');
      if (style === undefined) continue;
      for (const one of parseDeclarations(style))
        if (says(one)) {
          const { line } = lines.placeOf(Math.max(element.start, 0));
          out.push({ kind: 'attribute', path, line, selector: element.tag, property: one.property, value: one.value });
        }
    }
  }
  return out;
}

/** Compares by meaning, a colour as a colour; a value of several parts by each part. */
function sayer(wanted: string): (one: Declaration) => boolean {
  const plain = folded(wanted);
  const colour = comparableValue('color', trimmed(wanted));
  const font = plain.replace(/["']/g, '');
  const known = new Map<string, boolean>();
  return ({ property, value }) => {
    const key = `${property}: ${value}`;
    let says = known.get(key);
    if (says === undefined) {
      says =
        folded(value) === plain ||
        comparableValue(property, value) === comparableValue(property, trimmed(wanted)) ||
        parts(value).some((part) => folded(part) === plain || comparableValue('color', part) === colour) ||
        (/^font(-family)?$/.test(property) &&
          parts(value, ',').some((part) => folded(part).replace(/["']/g, '') === font));
      known.set(key, says);
    }
    return says;
  };
}

const folded = (text: string): string => lowered(trimmed(text).replace(/[\t\n\f\r ]+/g, ' '));

/** The parts at white space, slashes and commas, or at commas alone, functions and strings in one piece. */
function parts(value: string, only?: string): readonly string[] {
  const out: string[] = [];
  let part = '';
  let depth = 0;
  let quote = '';
  for (const c of value) {
    if (quote !== '') {
      if (c === quote) quote = '';
    } else if (c === '"' || c === "'") quote = c;
    else if (c === '(') depth++;
    else if (c === ')') depth--;
    if (quote === '' && depth === 0 && (only ? c === only : /[\t\n\f\r ,/]/.test(c))) {
      if (trimmed(part) !== '') out.push(trimmed(part));
      part = '';
    } else part += c;
  }
  if (trimmed(part) !== '') out.push(trimmed(part));
  return out;
}
