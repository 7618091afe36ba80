import type { ComplexSelector, SelectorList } from '../selectors/selector.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import type { Rule, Sheet } from '../sheet/sheet.ts';
import { selectorsOf } from './selectorNames.ts';
import type { SiteFile } from '../source/site.ts';

/** More changed selectors than this are not told apart. */
const mostSelectors = 300;

/**
 * The selectors of all rules that came, went, moved or changed between two states of a sheet. Elements that none of them reaches
 * are matched by the same rules in the same order. Undefined where more than plain style rules differ, or an address may come to
 * be in a custom property, which matters to rules elsewhere.
 */
export function sheetDelta(before: SiteFile, after: SiteFile): SelectorList | undefined {
  if (before.text === undefined || after.text === undefined || before.encoding !== after.encoding) return undefined;
  const old = partsOf(before.text);
  const now = partsOf(after.text);
  const most = Math.min(old.length, now.length);
  let start = 0;
  while (start < most && old[start]!.text === now[start]!.text) start++;
  let tail = 0;
  while (tail < most - start && old[old.length - 1 - tail]!.text === now[now.length - 1 - tail]!.text) tail++;
  // a rule put before an import or a namespace makes it invalid
  if ([...old.slice(start), ...now.slice(start)].some(({ rule }) => /^(import|statement)$/.test(rule.kind)))
    return undefined;
  const out: ComplexSelector[] = [];
  for (const { rule, text } of [...old.slice(start, old.length - tail), ...now.slice(start, now.length - tail)]) {
    const selectors = /--[^:;]*:[^;]*(url|src|image-set)\(/i.test(text) ? undefined : selectorsIn(rule);
    if (!selectors || out.length + selectors.length > mostSelectors) return undefined;
    out.push(...selectors);
  }
  return out;
}

function partsOf(text: string): readonly { readonly rule: Rule; readonly text: string }[] {
  const sheet: Sheet = parseSheet(text);
  return sheet.rules.map((rule) => ({ rule, text: text.slice(rule.span.start, rule.span.end) }));
}

/** Of a plain rule, or of those in `@media` and `@supports`. */
function selectorsIn(rule: Rule): SelectorList | undefined {
  if (rule.kind === 'style')
    return rule.nested.length === 0 && rule.closed ? (selectorsOf(rule.selector) ?? []) : undefined;
  if (rule.kind !== 'group' || !/^(media|supports)$/.test(rule.name) || !rule.closed) return undefined;
  const out: ComplexSelector[] = [];
  for (const inner of rule.rules) {
    const selectors = selectorsIn(inner);
    if (!selectors) return undefined;
    out.push(...selectors);
  }
  return out;
}
