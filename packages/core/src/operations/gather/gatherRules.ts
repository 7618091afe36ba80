import { count } from '../../checks/words.ts';
import { closed, fields, operationType, type ProblemSentences } from '../operationType.ts';
import { Type } from '@sinclair/typebox';
import { leftOutOf } from './leftOut.ts';
import type { LeftRule } from './leftRule.ts';
import type { ChangeSet, FileEdits } from '../../source/changeSet.ts';
import { fail, succeed, type Result } from '../../source/result.ts';
import { pagesOf, type Site } from '../../source/site.ts';
import { readingOf, type PageReading } from '../../survey/pageReading.ts';
import type { RuleBody } from '../../survey/ruleBody.ts';
import { addClass } from '../pages/editClass.ts';
import { editGatheredPage } from './editGatheredPage.ts';
import type { ReadingMakers } from '../readings.ts';
import type { PagePlan, TakenUnit } from './gatherPlan.ts';
import type { Orderable } from './compete.ts';
import { mergeOrder } from './mergeOrder.ts';
import { isFreeScope } from './isFreeScope.ts';
import { movableText } from './movableText.ts';
import { withSelector } from './ruleText.ts';
import { scopedSelector } from './scopedSelector.ts';
import { describeSheetPathProblem, parseSheetPath, type SheetPathProblem } from '../sheetPath.ts';
import { hasPlace, writeGatheredSheet, type SheetPlace } from './writeGatheredSheet.ts';

/** Take rules out of the embedded blocks of pages into a sheet, and link it where the first block was. */
export interface GatherRules {
  readonly kind: 'gather-rules';
  /** The sheet's path as a person names it; `.css` is added when left out. New or existing. */
  readonly sheet: string;
  /** Pages to take from, by path; all when absent. */
  readonly pages?: readonly string[];
  /** Which rules; all when absent. Without `version`, every version of the family. */
  readonly rules?: readonly RuleChoice[];
  /** Rules to leave where they are, though `rules` names them: everywhere, or on one page. */
  readonly except?: readonly (RuleChoice & { readonly page?: string })[];
  /** The link stands ahead of the blocks that follow the same sources, behind links to these sheets. */
  readonly after?: readonly string[];
  /**
   * A class for the `body` of these pages: the rules then count below it only, as much as before (`:where()` adds nothing to their
   * specificity), so that other pages can link the sheet as well.
   */
  readonly scope?: string;
  /** Where in a sheet that is there already; at its end when absent. */
  readonly place?: SheetPlace;
  /** Leave emptied `style` elements in the pages. */
  readonly keepEmptyBlocks?: boolean;
}

export interface RuleChoice {
  readonly family: string;
  readonly version?: string;
}

export type GatherProblem =
  | { readonly kind: 'sheet-path'; readonly path: SheetPathProblem }
  | { readonly kind: 'no-such-page'; readonly path: string }
  | { readonly kind: 'sheet-opaque'; readonly path: string }
  | { readonly kind: 'no-such-rule'; readonly path: string; readonly family: string }
  | { readonly kind: 'scope-name'; readonly name: string }
  | { readonly kind: 'nothing-to-gather' };

export interface GatherPlan {
  readonly sheet: string;
  readonly changes: ChangeSet;
  readonly readings: ReadingMakers;
  /** Rules written to the sheet, in order: families with their versions. */
  readonly moved: readonly Required<RuleChoice>[];
  readonly left: readonly LeftRule[];
  readonly pages: readonly string[];
  readonly blocksEmptied: number;
}

/** Plans the operation on a site; writes nothing. */
export function planGatherRules(site: Site, operation: GatherRules): Result<GatherPlan, GatherProblem> {
  const path = parseSheetPath(operation.sheet, site);
  if (!path.ok) return fail({ kind: 'sheet-path', path: path.problem });
  const sheetPath = path.value;
  const target = site.files.get(sheetPath);
  if (target && target.text === undefined) return fail({ kind: 'sheet-opaque', path: sheetPath });
  const { place } = operation;
  if (typeof place === 'object' && (!target || !hasPlace(target, place)))
    return fail({ kind: 'no-such-rule', path: sheetPath, family: place.before });
  const missing = operation.pages?.find((page) => site.files.get(page)?.kind !== 'page');
  if (missing !== undefined) return fail({ kind: 'no-such-page', path: missing });
  if (operation.scope !== undefined && !isFreeScope(site, operation.scope))
    return fail({ kind: 'scope-name', name: operation.scope });
  const left: LeftRule[] = [];
  const pages = takePages(site, operation, sheetPath, left);
  const { order, conflicts } = orderUnits(pages);
  for (const page of pages) dropConflicts(page, conflicts, left);
  const planned = pages.filter((page) => page.taken.length > 0 || page.empty.length > 0);
  if (planned.length === 0) return fail({ kind: 'nothing-to-gather' });
  const kept = order.filter((key) => !conflicts.has(key));
  const sheetChange = writeGatheredSheet(target, sheetPath, kept, planned, place);
  const edited = planned
    .map((page) =>
      editGatheredPage(
        page,
        sheetPath,
        operation.keepEmptyBlocks ?? false,
        operation.after && { after: operation.after },
      ),
    )
    .map((edit, i) => (operation.scope === undefined ? edit : withBodyClass(edit, planned[i]!, operation.scope)));
  const changes: ChangeSet = {
    created: sheetChange.kind === 'created' ? [{ path: sheetPath, text: sheetChange.text }] : [],
    edited: [...(sheetChange.kind === 'edited' ? [sheetChange.edits] : []), ...edited.map((e) => e.edits)],
    deleted: [],
  };
  const rules = new Map(planned.flatMap((page) => page.taken).map((t) => [t.key, t.unit.rule]));
  return succeed({
    sheet: sheetPath,
    changes,
    // the class changes the body's own tag
    readings: new Map(operation.scope === undefined ? edited.map((e) => [e.edits.path, e.reading]) : []),
    moved: kept.map((key) => ({ family: rules.get(key)!.family, version: rules.get(key)!.version })),
    left,
    pages: planned.map(({ page }) => page.path),
    blocksEmptied: edited.reduce((sum, e) => sum + e.blocksEmptied, 0),
  });
}

function takePages(site: Site, operation: GatherRules, sheetPath: string, left: LeftRule[]): PagePlan[] {
  const wanted = operation.pages && new Set(operation.pages);
  const chosen = chooser(operation.rules);
  const excepted = exceptions(operation.except ?? []);
  const { scope } = operation;
  const plans: PagePlan[] = [];
  for (const file of pagesOf(site)) {
    if (file.text === undefined || (wanted && !wanted.has(file.path)) || !/<style/i.test(file.text)) continue;
    const page = readingOf(file)!;
    const empty =
      operation.rules === undefined
        ? page.blocks.filter((b) => b.stays === undefined && b.units.length === 0 && b.bare)
        : [];
    const taken: TakenUnit[] = [];
    for (const block of page.blocks)
      for (const unit of block.units) {
        const { rule } = unit;
        if (!chosen(rule) || excepted(rule, page.path)) continue;
        const moved =
          block.stays === undefined ? movableText(unit, block, page.text, sheetPath) : { reason: block.stays };
        const text = scope === undefined || typeof moved !== 'string' ? moved : scoped(moved, rule, page, scope);
        if (typeof text === 'string')
          taken.push({ block, unit, key: scope === undefined ? rule.key : `${rule.key}\n${scope}`, text });
        else left.push({ page: page.path, label: rule.label, family: rule.family, reason: text.reason });
      }
    if (taken.length > 0 || empty.length > 0) plans.push({ page, empty, taken });
  }
  return plans;
}

function chooser(choices: readonly RuleChoice[] | undefined): (rule: RuleBody) => boolean {
  if (choices === undefined) return () => true;
  const families = new Set(choices.filter((c) => c.version === undefined).map((c) => c.family));
  const versions = new Set(choices.filter((c) => c.version !== undefined).map((c) => `${c.family}\n${c.version}`));
  return (rule) => families.has(rule.family) || versions.has(rule.key);
}

function exceptions(choices: NonNullable<GatherRules['except']>): (rule: RuleBody, page: string) => boolean {
  const everywhere = chooser(choices.filter((choice) => choice.page === undefined));
  const byPage = new Map<string, RuleChoice[]>();
  for (const choice of choices) {
    if (choice.page === undefined) continue;
    const list = byPage.get(choice.page);
    if (list) list.push(choice);
    else byPage.set(choice.page, [choice]);
  }
  const onPage = new Map([...byPage].map(([page, list]) => [page, chooser(list)]));
  return (rule, page) => everywhere(rule) || (onPage.get(page)?.(rule) ?? false);
}

/** A rule that a page says twice counts where it stands last: the earlier copy decides nothing. */
function lastOfEach(keys: readonly string[]): readonly string[] {
  const last = new Map(keys.map((key, i) => [key, i]));
  return last.size === keys.length ? keys : keys.filter((key, i) => last.get(key) === i);
}

/** The rule with its selectors below the page's class; not where the page's `body` tag is implied or the selector is the root's. */
function scoped(
  text: string,
  rule: RuleBody,
  { body }: PageReading,
  name: string,
): string | { readonly reason: 'no-scope' } {
  const selector = rule.kind === 'rule' ? scopedSelector(rule.label, name) : undefined;
  if (selector === undefined || !body || body.start < 0) return { reason: 'no-scope' };
  return withSelector(text, selector);
}

function withBodyClass<Edited extends { readonly edits: FileEdits }>(
  edited: Edited,
  { page, taken }: PagePlan,
  name: string,
): Edited {
  const body = page.body!;
  if (taken.length === 0 || body.classes.includes(name)) return edited;
  const edits = [...edited.edits.edits, addClass(page.text, body, name)];
  return { ...edited, edits: { ...edited.edits, edits } };
}

function orderUnits(plans: readonly PagePlan[]): { order: readonly string[]; conflicts: ReadonlySet<string> } {
  const rules = new Map<string, Orderable>();
  for (const { taken } of plans)
    for (const { key, unit } of taken) {
      if (rules.has(key)) continue;
      const { kind, label, declarations, nests } = unit.rule;
      rules.set(key, { key, kind, label, declarations, nests });
    }
  const { order, left } = mergeOrder(
    rules,
    plans.map(({ taken }) => lastOfEach(taken.map((t) => t.key))),
  );
  return { order, conflicts: new Set(left) };
}

function dropConflicts({ page, taken }: PagePlan, conflicts: ReadonlySet<string>, left: LeftRule[]): void {
  if (conflicts.size === 0) return;
  for (let i = taken.length - 1; i >= 0; i--) {
    const { key, unit } = taken[i]!;
    if (!conflicts.has(key)) continue;
    taken.splice(i, 1);
    left.push({ page: page.path, label: unit.rule.label, family: unit.rule.family, reason: 'order-conflict' });
  }
}

export const gatherProblems: ProblemSentences<GatherProblem> = {
  'sheet-path': (problem) => describeSheetPathProblem(problem.path),
  'no-such-page': (problem) => `There is no page ${problem.path} in this site.`,
  'sheet-opaque': (problem) =>
    `${problem.path} does not encode back to its own bytes, so nothing can be added to it. Choose another sheet.`,
  'no-such-rule': (problem) =>
    `${problem.path} has no rule ${problem.family} to put others before. Give a rule's selector as the sheet has it, or choose its start or end.`,
  'scope-name': (problem) =>
    `${problem.name} cannot be the class of these pages: letters, digits, hyphens and underscores are allowed, a letter first, and no other element may have it.`,
  'nothing-to-gather': () => 'None of the chosen pages holds any of the chosen rules in a block that can be moved.',
};

const RuleChoiceSchema = { family: Type.String(), version: Type.Optional(Type.String()) };

export const gatherRules = operationType<GatherRules, GatherProblem>()({
  kind: 'gather-rules',
  schema: Type.Object(
    {
      kind: Type.Literal('gather-rules'),
      sheet: fields.sheet,
      pages: fields.somePages,
      rules: Type.Optional(Type.Array(Type.Object(RuleChoiceSchema, closed), { maxItems: 50_000 })),
      except: Type.Optional(
        Type.Array(Type.Object({ ...RuleChoiceSchema, page: Type.Optional(Type.String()) }, closed), {
          maxItems: 200_000,
        }),
      ),
      after: Type.Optional(Type.Array(Type.String(), { maxItems: 500 })),
      scope: Type.Optional(Type.String({ minLength: 1, maxLength: 100 })),
      place: Type.Optional(
        Type.Union([
          Type.Literal('start'),
          Type.Literal('end'),
          Type.Object({ before: Type.String({ minLength: 1, maxLength: 4000 }) }, closed),
        ]),
      ),
      keepEmptyBlocks: Type.Optional(Type.Boolean()),
    },
    closed,
  ),
  plan(site, operation) {
    const plan = planGatherRules(site, operation);
    if (!plan.ok) return plan;
    const { changes, readings, left, moved, pages, sheet } = plan.value;
    const into = site.files.has(sheet) ? sheet : `${sheet}, a new sheet`;
    const sentence = `Gather ${count(moved.length, 'rule')} from ${count(pages.length, 'page')} into ${into}`;
    return succeed({ changes, readings, left, sentence, leftOut: leftOutOf(site, sheet, pages) });
  },
  problems: gatherProblems,
});
