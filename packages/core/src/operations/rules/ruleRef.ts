import { Type } from '@sinclair/typebox';
import { parseSheet } from '../../sheet/parseSheet.ts';
import type { GroupRule, Rule, Sheet, StyleRule } from '../../sheet/sheet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import type { Site, SiteFile } from '../../source/site.ts';
import type { Span } from '../../source/span.ts';
import { selectorText } from '../../survey/selectorText.ts';
import { closed, type ProblemSentences } from '../operationType.ts';

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

export interface FoundRule {
  readonly rule: StyleRule;
  /** The at-rules it stands in, outermost first. */
  readonly groups: readonly GroupRule[];
}

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

/** All style rules that stand in no other style rule, in the order of the text. */
export function rulesOf(sheet: Sheet): readonly FoundRule[] {
  const out: FoundRule[] = [];
  const walk = (rules: readonly Rule[], groups: readonly GroupRule[]): void => {
    for (const rule of rules) {
      if (rule.kind === 'style') out.push({ rule, groups });
      else if (rule.kind === 'group') walk(rule.rules, [...groups, rule]);
    }
  };
  walk(sheet.rules, []);
  return out;
}

/** The at-rules as a reference names them. */
export const underOf = (groups: readonly GroupRule[]): readonly string[] =>
  groups.map(({ name, prelude }) => `@${name} ${prelude}`.trim());

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

/** The rule with the comments that stand right above it, no blank line between. */
export function withLead(text: string, { comments }: Sheet, { span }: StyleRule): Span {
  let { start } = span;
  for (const comment of [...comments].reverse()) {
    if (comment.end > start) continue;
    const between = text.slice(comment.end, start);
    if (!/^[ \t]*(?:\r\n|\r|\n)?[ \t]*$/.test(between)) break;
    // a comment behind another rule belongs to that one
    if (!/(?:^|[\r\n])[ \t]*$/.test(text.slice(Math.max(0, comment.start - 200), comment.start))) break;
    start = comment.start;
  }
  return { start, end: span.end };
}

/** Several rules by the first of them. */
export const namesOfRules = (rules: readonly { readonly selector: string }[]): string =>
  rules.length === 1 ? rules[0]!.selector : `${rules.length} rules`;
