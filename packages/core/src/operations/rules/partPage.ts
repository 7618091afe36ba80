import { Type } from '@sinclair/typebox';
import { applyChangeSet } from '../../source/changeSet.ts';
import { fail, succeed } from '../../source/result.ts';
import type { Site } from '../../source/site.ts';
import { linkedSheets } from '../../survey/linkedSheets.ts';
import { planLinkSheet, linkSheet, type LinkSheetProblem } from '../links/linkSheet.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { describeSheetPathProblem, parseSheetPath, type SheetPathProblem } from '../sheetPath.ts';
import { moveRules, planMoveRules, type MoveRulesProblem } from './moveRules.ts';
import { eachCascade } from './eachCascade.ts';
import { madeOn } from './madeOn.ts';
import { refOf, editableSheet, type RuleRef } from './ruleRef.ts';
import { rulesOf } from './sheetRules.ts';

/**
 * The rules of a shared sheet that only one page has elements for go to a sheet of that page's own, right behind the shared one.
 * Putting the sheet back into the shared one (`merge-sheets`) takes it back.
 */
export interface PartPage {
  readonly kind: 'part-page';
  readonly sheet: string;
  readonly page: string;
  readonly to: string;
}

export type PartPageProblem =
  | MoveRulesProblem
  | LinkSheetProblem
  | { readonly kind: 'part-path'; readonly path: SheetPathProblem }
  | { readonly kind: 'part-taken'; readonly path: string }
  | { readonly kind: 'nothing-of-page'; readonly sheet: string; readonly page: string };

/** By page, the rules of a sheet that have elements on it and on no other page. */
export function rulesOfOnePage(site: Site, path: string): ReadonlyMap<string, readonly RuleRef[]> {
  const opened = editableSheet(site, path);
  const pages = linkedSheets(site).find((sheet) => sheet.path === path)?.pages ?? [];
  if (!opened.ok) return new Map();
  const holders = new Map<number, Set<string>>();
  eachCascade(site, pages, (cascade) => {
    for (const element of cascade.tree.elements)
      for (const { indexed } of cascade.matchedAlike(element)) {
        const { source, compiled } = indexed.rule;
        if (source.kind === 'embedded' || source.path !== path) continue;
        const known = holders.get(compiled.rule.span.start);
        if (known) known.add(cascade.path);
        else holders.set(compiled.rule.span.start, new Set([cascade.path]));
      }
  });
  const made = madeOn(site, pages);
  const all = rulesOf(opened.value.sheet);
  const out = new Map<string, RuleRef[]>();
  for (const one of all) {
    const [page, another] = holders.get(one.rule.span.start) ?? [];
    // what holds other rules may reach more than can be seen here
    if (page === undefined || another !== undefined || one.rule.nested.length > 0 || made(one.rule.selector)) continue;
    const known = out.get(page);
    if (known) known.push(refOf(one, all));
    else out.set(page, [refOf(one, all)]);
  }
  return out;
}

export const partPage = operationType<PartPage, PartPageProblem>()({
  kind: 'part-page',
  schema: Type.Object(
    {
      kind: Type.Literal('part-page'),
      sheet: fields.sheet,
      page: Type.String({ minLength: 1, maxLength: 400 }),
      to: fields.sheet,
    },
    closed,
  ),
  plan(site, { sheet, page, to }) {
    const path = parseSheetPath(to, site);
    if (!path.ok) return fail({ kind: 'part-path', path: path.problem });
    if (site.files.has(path.value)) return fail({ kind: 'part-taken', path: path.value });
    const opened = editableSheet(site, sheet);
    if (!opened.ok) return opened;
    const rules = rulesOfOnePage(site, sheet).get(page) ?? [];
    if (rules.length === 0) return fail({ kind: 'nothing-of-page', sheet, page });
    const empty = { path: path.value, text: '', encoding: opened.value.file.encoding ?? 'utf-8' };
    const made = applyChangeSet(site, { created: [empty], edited: [], deleted: [] });
    if (!made.ok) throw new Error(`${path.value} cannot be made: ${made.problem.kind}`);
    const moved = planMoveRules(made.value, { kind: 'move-rules', sheet, rules, to: path.value });
    if (!moved.ok) return moved;
    const links = planLinkSheet(made.value, {
      kind: 'link-sheet',
      sheet: path.value,
      pages: [page],
      place: { at: 'after', sheet },
    });
    if (!links.ok) return links;
    const after = applyChangeSet(made.value, moved.value);
    if (!after.ok) throw new Error(`${sheet} cannot be parted: ${after.problem.kind}`);
    const created = [{ ...empty, text: after.value.files.get(path.value)!.text! }];
    const edited = [...moved.value.edited.filter((one) => one.path === sheet), ...links.value.changes.edited];
    const sentence = `Take ${rules.length === 1 ? 'a rule' : `${rules.length} rules`} that only ${page} has elements for out of ${sheet} into ${path.value}`;
    return succeed({ changes: { created, edited, deleted: [] }, sentence });
  },
  problems: {
    ...linkSheet.problems,
    ...moveRules.problems,
    'part-path': ({ path }) => describeSheetPathProblem(path),
    'part-taken': ({ path }) => `${path} is there already. Choose a name that no file has.`,
    'nothing-of-page': ({ sheet, page }) => `${sheet} has no rule that only ${page} has elements for.`,
  },
});
