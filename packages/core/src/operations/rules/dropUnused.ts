import { Type } from '@sinclair/typebox';
import { selectorsOf, neededNames } from '../../survey/selectorNames.ts';
import { matchList } from '../../selectors/matchSelector.ts';
import { fail, succeed } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import { openPage } from '../../survey/openPage.ts';
import { linkedSheets } from '../../survey/linkedSheets.ts';
import { madeNames } from '../../survey/madeNames.ts';
import { readingOf } from '../../survey/pageReading.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { planDeleteRules, deleteRules, type DeleteRulesProblem } from './deleteRules.ts';
import { editableSheet, refOf, type RuleRef } from './ruleRef.ts';
import { rulesOf, type FoundRule } from './sheetRules.ts';

/** Takes out of a sheet, or comments out, the rules that no element of any page has in any state, nor what scripts may make. */
export interface DropUnused {
  readonly kind: 'drop-unused';
  readonly sheet: string;
  readonly keep?: 'comment';
}

export type DropUnusedProblem = DeleteRulesProblem | { readonly kind: 'all-used'; readonly sheet: string };

/** The rules of a sheet that no page which takes it needs; none where no page does. */
export function unusedRulesOf(site: Site, path: string): readonly RuleRef[] {
  const opened = editableSheet(site, path);
  const pages = linkedSheets(site).find((sheet) => sheet.path === path)?.pages ?? [];
  if (!opened.ok || pages.length === 0) return [];
  const all = rulesOf(opened.value.sheet);
  const open = new Set(all.filter(({ rule }) => rule.nested.length === 0 && selectorsOf(rule.selector) !== undefined));
  for (const page of pages) {
    if (open.size === 0) break;
    for (const one of usedOn(site, page, [...open])) open.delete(one);
  }
  return all.filter((one) => open.has(one)).map((one) => refOf(one, all));
}

function usedOn(site: Site, path: string, rules: readonly FoundRule[]): readonly FoundRule[] {
  const file = site.files.get(path)!;
  const reading = readingOf(file);
  const page = openPage(file);
  // what cannot be read may need any of them
  if (!reading || !page) return rules;
  const made = madeNames(reading, site);
  const context = { quirks: page.tree.mode === 'quirks', state: 'any' } as const;
  return rules.filter(({ rule }) =>
    selectorsOf(rule.selector)!.some((selector) => {
      const needed = neededNames(selector);
      if (made && needed.every((name) => reading.names.has(name) || made.has(name.replace(/^[.#]/, '')))) return true;
      return (
        needed.every((name) => reading.names.has(name)) &&
        page.tree.elements.some((element) => matchList(element, [selector], context) > 0)
      );
    }),
  );
}

export const dropUnused = operationType<DropUnused, DropUnusedProblem>()({
  kind: 'drop-unused',
  schema: Type.Object(
    { kind: Type.Literal('drop-unused'), sheet: fields.sheet, keep: Type.Optional(Type.Literal('comment')) },
    closed,
  ),
  plan(site, { sheet, keep }) {
    const opened = editableSheet(site, sheet);
    if (!opened.ok) return opened;
    const rules = unusedRulesOf(site, sheet);
    if (rules.length === 0) return fail({ kind: 'all-used', sheet });
    const plan = planDeleteRules(site, { kind: 'delete-rules', sheet, rules, ...(keep ? { keep } : {}) });
    if (!plan.ok) return plan;
    const number = rules.length === 1 ? 'a rule' : `${rules.length} rules`;
    const sentence = `${keep ? 'Comment out' : 'Drop'} ${number} of ${sheet} that no page has an element for`;
    return succeed({ changes: plan.value, sentence });
  },
  problems: {
    ...deleteRules.problems,
    'all-used': ({ sheet }) => `Every rule of ${sheet} has an element on some page, or no page links it.`,
  },
});
