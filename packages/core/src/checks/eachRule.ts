import { attributeOf } from '../page/nodes.ts';
import { parseDeclarations } from '../sheet/parseSheet.ts';
import type { Declaration, Rule } from '../sheet/sheet.ts';
import type { LineIndex } from '../source/span.ts';
import type { CheckedPage, CheckedSheet } from './check.ts';

/** Where declarations were found, and how their spans count. */
export interface Holder {
  readonly path: string;
  readonly text: string;
  readonly lines: LineIndex;
  /** The page, when it is one. */
  readonly page: CheckedPage | undefined;
  /** Start of the tag for a style attribute, whose spans count in the attribute's value; undefined when they count in the file. */
  readonly tagStart: number | undefined;
}

export type Declared = (declarations: readonly Declaration[], holder: Holder, selector: string | undefined) => void;

/** Each run of declarations in a sheet's style rules, nested ones included. */
export function eachRuleOfSheet({ path, text, sheet, lines }: CheckedSheet, visit: Declared): void {
  walk(sheet.rules, { path, text, lines, page: undefined, tagStart: undefined }, visit, undefined);
}

/** Each run of declarations in a page's embedded blocks and style attributes. */
export function eachRuleOfPage(page: CheckedPage, visit: Declared): void {
  const { path, text, lines } = page;
  for (const block of page.blocks)
    if (block.source.idle === undefined && !block.source.foreign)
      walk(block.sheet.rules, { path, text, lines, page, tagStart: undefined }, visit, undefined);
  for (const element of page.tree.elements) {
    const value = attributeOf(element, 'style');
    if (value !== undefined)
      visit(parseDeclarations(value), { path, text, lines, page, tagStart: element.start }, undefined);
  }
}

function walk(rules: readonly Rule[], holder: Holder, visit: Declared, selector: string | undefined): void {
  for (const rule of rules) {
    if (rule.kind === 'style') {
      visit(rule.declarations, holder, rule.selector);
      if (rule.nested.length > 0) walk(rule.nested, holder, visit, rule.selector);
    } else if (rule.kind === 'declarations') visit(rule.declarations, holder, selector);
    else if (rule.kind === 'group') walk(rule.rules, holder, visit, selector);
  }
}
