import { SiteChecker } from '../checks/checkSite.ts';
import { describeChangeProblem, type ChangeProblem } from '../source/changeSet.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import type { Site } from '../source/site.ts';
import { followRule } from './gather/followRule.ts';
import { gatherAttributes } from './gather/gatherAttributes.ts';
import { gatherBlocks } from './gather/gatherBlocks.ts';
import { gatherHints } from './gather/gatherHints.ts';
import { gatherRules } from './gather/gatherRules.ts';
import { gatherSheet } from './gather/gatherSheet.ts';
import { settleAttributes } from './gather/settleAttributes.ts';
import { settleDrift } from './gather/settleDrift.ts';
import { addBaseline } from './links/addBaseline.ts';
import { copyLinks } from './links/copyLinks.ts';
import { importToLink } from './links/importToLink.ts';
import { linkAlike } from './links/linkAlike.ts';
import { linkSheet } from './links/linkSheet.ts';
import { linkToImport } from './links/linkToImport.ts';
import { moveLink } from './links/moveLink.ts';
import { setLink } from './links/setLink.ts';
import { takeAsMissing } from './links/takeAsMissing.ts';
import { unlinkSheet } from './links/unlinkSheet.ts';
import type { Known, OperationPlan, OperationType } from './operationType.ts';
import { keepLook } from './overrides/keepLook.ts';
import { dropDeclaration } from './overrides/dropDeclaration.ts';
import { dropAttribute, dropBlock } from './overrides/dropSource.ts';
import { shareDeclaration } from './overrides/shareDeclaration.ts';
import { giveClass } from './names/giveClass.ts';
import { renameName } from './names/renameName.ts';
import { mend } from './pages/mend.ts';
import { wrapContent } from './pages/wrapContent.ts';
import { applyPlan } from './readings.ts';
import { addRule } from './rules/addRule.ts';
import { changeRule } from './rules/changeRule.ts';
import { colourNotation } from './rules/colourNotation.ts';
import { commentIn } from './rules/commentIn.ts';
import { deleteRules } from './rules/deleteRules.ts';
import { partPage } from './rules/partPage.ts';
import { sortRules } from './rules/sortRules.ts';
import { uniteValues } from './rules/uniteValues.ts';
import { dropBeaten } from './rules/dropBeaten.ts';
import { dropDuplicates } from './rules/dropDuplicates.ts';
import { groupRules } from './rules/groupRules.ts';
import { moveRules } from './rules/moveRules.ts';
import { splitRule } from './rules/splitRule.ts';
import { valuesToProperties } from './rules/valuesToProperties.ts';
import { dropUnused } from './rules/dropUnused.ts';
import { deleteSheet } from './sheets/deleteSheet.ts';
import { editSheet } from './sheets/editSheet.ts';
import { mergeSheets } from './sheets/mergeSheets.ts';
import { newSheet } from './sheets/newSheet.ts';
import { renameSheet } from './sheets/renameSheet.ts';
import { splitSheet } from './sheets/splitSheet.ts';

/** Every kind of operation there is: its file says all of it, and it stands here once. */
export const operationTypes = [
  gatherRules,
  gatherSheet,
  gatherBlocks,
  settleDrift,
  followRule,
  settleAttributes,
  gatherAttributes,
  gatherHints,
  editSheet,
  renameSheet,
  newSheet,
  deleteSheet,
  splitSheet,
  mergeSheets,
  addRule,
  changeRule,
  deleteRules,
  commentIn,
  moveRules,
  groupRules,
  splitRule,
  dropBeaten,
  partPage,
  sortRules,
  uniteValues,
  dropDuplicates,
  dropUnused,
  valuesToProperties,
  colourNotation,
  renameName,
  giveClass,
  mend,
  wrapContent,
  linkAlike,
  linkSheet,
  unlinkSheet,
  moveLink,
  setLink,
  importToLink,
  linkToImport,
  copyLinks,
  takeAsMissing,
  addBaseline,
  keepLook,
  dropDeclaration,
  shareDeclaration,
  dropBlock,
  dropAttribute,
] as const;

type Types = (typeof operationTypes)[number];

/** One described change of a site. */
export type Operation = Types extends infer One ? (One extends OperationType<infer Of, infer _> ? Of : never) : never;

type PlanProblem = Types extends infer One
  ? One extends OperationType<infer _, infer Problem>
    ? Problem
    : never
  : never;

export type OperationProblem = PlanProblem | ChangeProblem;

/** How the list is asked: by kind, without knowing which one it is. */
interface AnyType {
  readonly kind: string;
  readonly plan: (site: Site, operation: never, known: Known) => Result<OperationPlan, PlanProblem>;
  readonly problems: Readonly<Record<string, (problem: never) => string>>;
  readonly choosesLook?: true;
}

const typeOf = new Map<string, AnyType>(operationTypes.map((type): [string, AnyType] => [type.kind, type]));

/** What an operation would change, and in one sentence. Pure: data in, data out. */
export function planOperation(
  site: Site,
  operation: Operation,
  known: Known = new SiteChecker(),
): Result<OperationPlan, OperationProblem> {
  return typeOf.get(operation.kind)!.plan(site, operation as never, known);
}

const sentences: AnyType['problems'] = Object.fromEntries(
  operationTypes.flatMap(({ problems }) => Object.entries(problems)),
);

/** One sentence for a person: what is wrong, with the names in it. */
export function describeOperationProblem(problem: OperationProblem): string {
  return sentences[problem.kind]?.(problem as never) ?? describeChangeProblem(problem as ChangeProblem);
}

/** The site after operations done one after the other, each planned on what the ones before it leave. */
export interface DraftSite {
  readonly site: Site;
  readonly steps: readonly OperationPlan[];
}

export function applyOperations(
  site: Site,
  operations: readonly Operation[],
  known: Known = new SiteChecker(),
): Result<DraftSite, { readonly index: number; readonly problem: OperationProblem }> {
  let at = site;
  const steps: OperationPlan[] = [];
  for (const [index, operation] of operations.entries()) {
    const plan = planOperation(at, operation, known);
    if (!plan.ok) return fail({ index, problem: plan.problem });
    const next = applyPlan(at, plan.value);
    if (!next.ok) return fail({ index, problem: next.problem });
    at = next.value;
    steps.push(plan.value);
  }
  return succeed({ site: at, steps });
}

/** Operations by which somebody chose another look, in their order. */
export const lookChoices = (operations: readonly Operation[]): readonly Operation[] =>
  operations.filter(({ kind }) => typeOf.get(kind)!.choosesLook);

/** The site with nothing but what somebody chose to look different; what needs other operations first is left out. */
export function siteAsChosen(site: Site, operations: readonly Operation[]): Site {
  let at = site;
  for (const operation of lookChoices(operations)) {
    const plan = planOperation(at, operation);
    const next = plan.ok ? applyPlan(at, plan.value) : undefined;
    if (next?.ok) at = next.value;
  }
  return at;
}
