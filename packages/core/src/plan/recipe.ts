import { settingsIn, type PlanSettings } from '../operations/gather/planSettings.ts';
import { describeOperationProblem, planOperation, type Operation } from '../operations/operation.ts';
import { planStepOf } from '../operations/planStep.ts';
import { applyPlan } from '../operations/readings.ts';
import type { Site } from '../source/site.ts';
import { planWhole } from './planWhole.ts';

export type RecipeStep =
  /** Gather what pages hold into this sheet: planned on the pages that are there then. */
  | { readonly does: 'gather'; readonly sheet: string; readonly settings: PlanSettings }
  | { readonly does: 'operation'; readonly operation: Operation };

/** What was done to a site, to be done to other pages, another folder or another site. */
export interface Recipe {
  readonly recipe: 1;
  readonly name: string;
  readonly steps: readonly RecipeStep[];
}

/**
 * The recipe of operations. A plan becomes one step, which is planned anew wherever it is applied, as it was asked for.
 */
export function makeRecipe(name: string, operations: readonly Operation[]): Recipe {
  const plan = planStepOf(operations);
  const before = operations.slice(0, plan?.from ?? operations.length);
  const after = operations.slice(plan?.to ?? operations.length);
  const asSteps = (list: readonly Operation[]): readonly RecipeStep[] =>
    list.map((operation) => ({ does: 'operation', operation }));
  const gather = plan ? [gatherStep(operations.slice(plan.from, plan.to))] : [];
  return { recipe: 1, name, steps: [...asSteps(before), ...gather, ...asSteps(after)] };
}

function gatherStep(operations: readonly Operation[]): RecipeStep {
  const has = (kind: Operation['kind']): boolean => operations.some((one) => one.kind === kind);
  const main = operations.find((one) => one.kind === 'gather-sheet');
  // a plan made before settings were kept shows what it did
  const settings = main!.asked ?? settingsIn(has('gather-hints') ? { hints: true } : {}) ?? {};
  return { does: 'gather', sheet: main!.sheet, settings };
}

export interface AppliedRecipe {
  readonly site: Site;
  /** What fits, in order. */
  readonly operations: readonly Operation[];
  /** What was done, in sentences. */
  readonly fits: readonly string[];
  /** What does not fit this site, and why. */
  readonly misfits: readonly { readonly step: number; readonly why: string }[];
}

/** Does a recipe's steps to a site, one after the other; a step that does not fit is left out, and said. */
export function applyRecipe(site: Site, { steps }: Recipe): AppliedRecipe {
  let at = site;
  const operations: Operation[] = [];
  const fits: string[] = [];
  const misfits: { step: number; why: string }[] = [];
  for (const [step, one] of steps.entries()) {
    const planned = one.does === 'gather' ? gathered(at, one) : [one.operation];
    if (typeof planned === 'string') {
      misfits.push({ step, why: planned });
      continue;
    }
    for (const operation of planned) {
      const plan = planOperation(at, operation);
      if (!plan.ok) {
        misfits.push({ step, why: describeOperationProblem(plan.problem) });
        continue;
      }
      const next = applyPlan(at, plan.value);
      if (!next.ok) {
        misfits.push({ step, why: describeOperationProblem(next.problem) });
        continue;
      }
      at = next.value;
      operations.push(operation);
      fits.push(plan.value.sentence);
    }
  }
  return { site: at, operations, fits, misfits };
}

/** The operations of a plan on the pages that are here, or why there is none. */
function gathered(
  site: Site,
  { sheet, settings }: RecipeStep & { readonly does: 'gather' },
): readonly Operation[] | string {
  const plan = planWhole(site, sheet, settings);
  if (!plan.ok) return describeOperationProblem(plan.problem);
  return plan.value.operations.length > 0 ? plan.value.operations : 'The pages hold nothing that could be gathered.';
}
