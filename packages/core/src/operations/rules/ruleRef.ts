import { Type } from '@sinclair/typebox';
import { parseSheet } from '../../sheet/parseSheet.ts';
import type { Sheet } from '../../sheet/sheet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site, SiteFile } from '../../source/site.ts';
import { selectorText } from '../../survey/selectorText.ts';
import { closed, type ProblemSentences } from '../operationType.ts';
import { rulesOf, underOf, type FoundRule } from './sheetRules.ts';

/** A style rule of a sheet by what it says: its selectors, the at-rules it stands in, and which of several such rules it is. */
export interface RuleRef {
  readonly selector: string;
  /** Outermost first, such as `@media print`; none when absent. */
  readonly under?: readonly string[];
  /** From 1 in the order of the text; the last one when absent. */
  readonly nth?: number;
}

export const RuleRefSchema = Type.Object(
  {
    selector: Type.String({ minLength: 1, maxLength: 20_000 }),
    under: Type.Optional(Type.Array(Type.String({ maxLength: 2000 }), { maxItems: 50 })),
    nth: Type.Optional(Type.Integer({ minimum: 1, maximum: 1_000_000 })),
  },
  closed,
);

export type RuleProblem =
  | { readonly kind: 'no-sheet-there'; readonly sheet: string }
  | { readonly kind: 'rule-not-in-sheet'; readonly sheet: string; readonly selector: string };

export const ruleProblems: ProblemSentences<RuleProblem> = {
  'no-sheet-there': ({ sheet }) => `There is no sheet ${sheet} in this site that can be edited.`,
  'rule-not-in-sheet': ({ sheet, selector }) =>
    `${sheet} has no rule ${selector} there. It was changed or moved meanwhile; look at the sheet and choose again.`,
};

export interface EditableSheet {
  readonly file: SiteFile;
  readonly text: string;
  readonly sheet: Sheet;
}

export function editableSheet(site: Site, path: string): Result<EditableSheet, RuleProblem> {
  const file = site.files.get(path);
  if (file?.kind !== 'sheet' || file.text === undefined) return fail({ kind: 'no-sheet-there', sheet: path });
  return succeed({ file, text: file.text, sheet: parseSheet(file.text) });
}

export function findRule(sheet: Sheet, { selector, under = [], nth }: RuleRef): FoundRule | undefined {
  const wanted = selectorText(selector);
  const place = under.join('\n');
  const alike = rulesOf(sheet).filter(
    ({ rule, groups }) => selectorText(rule.selector) === wanted && underOf(groups).join('\n') === place,
  );
  return nth === undefined ? alike.at(-1) : alike[nth - 1];
}

/** The rules of references, in the order of the text. */
export function findRules(
  path: string,
  sheet: Sheet,
  refs: readonly RuleRef[],
): Result<readonly FoundRule[], RuleProblem> {
  const out = new Map<number, FoundRule>();
  for (const ref of refs) {
    const found = findRule(sheet, ref);
    if (!found) return fail({ kind: 'rule-not-in-sheet', sheet: path, selector: ref.selector });
    out.set(found.rule.span.start, found);
  }
  return succeed([...out.values()].sort((a, b) => a.rule.span.start - b.rule.span.start));
}

/** Several rules by the first of them. */
export const namesOfRules = (rules: readonly { readonly selector: string }[]): string =>
  rules.length === 1 ? rules[0]!.selector : `${rules.length} rules`;

/** How a rule is referred to among all of its sheet. */
export function refOf({ rule, groups }: FoundRule, all: readonly FoundRule[]): RuleRef {
  const place = underOf(groups).join('\n');
  const alike = all.filter((one) => one.rule.selector === rule.selector && underOf(one.groups).join('\n') === place);
  const nth = alike.findIndex((one) => one.rule === rule) + 1;
  return { selector: rule.selector, ...(groups.length > 0 ? { under: underOf(groups) } : {}), nth };
}
