import {
  planGatherAttributes,
  type AttributesPlan,
  type AttributesProblem,
  type GatherAttributes,
} from '../operations/gather/gatherAttributes.ts';
import type { OperationProblem } from '../operations/operation.ts';
import { applyPlan } from '../operations/readings.ts';
import { parseSheetPath } from '../operations/sheetPath.ts';
import type { Proof } from '../proof/proof.ts';
import type { SiteProver } from '../proof/siteProver.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { folderOf } from '../source/sitePath.ts';
import { attempt } from './attempt.ts';
import { attributesSheetBeside, freeSheetName } from './freeSheetName.ts';
import { planLookKeepingAttributes, watchFor, type LookKeepingAttributes } from './planAttributes.ts';
import { CarefulGather, type LookKeepingPlan } from './planGather.ts';
import type { Attempt, PlannedSheet } from './planOptions.ts';
import { attributesStaying, blocksStaying } from './staying.ts';
import type { WholePlan, WholePlanOptions } from './wholePlan.ts';
import { differingIn } from './differing.ts';

/** Blocks first: what rules ask for then decides how strong the classes of style attributes have to be. */
export function planStyling(
  site: Site,
  sheet: string,
  options: WholePlanOptions,
  prover: SiteProver,
): Result<WholePlan, OperationProblem> {
  const path = parseSheetPath(sheet, site);
  if (!path.ok) return fail({ kind: 'sheet-path', path: path.problem });
  if (site.files.has(path.value)) {
    const both = bothAtOnce(site, path.value, options, prover);
    return both ? succeed(both) : besideSheet(site, path.value, options, prover);
  }
  const gather = new CarefulGather(site, path.value, forBlocks(options), prover);
  return succeed(
    options.keepAttributes
      ? onlyBlocks(gather.whole(), options)
      : blocksAndAttributes(gather, path.value, options, prover),
  );
}

const onlyBlocks = (blocks: LookKeepingPlan, options: WholePlanOptions): WholePlan =>
  wholeOf(blocks, undefined, blocks.proof, options);

/** Proved together, unless no attributes can go. */
function blocksAndAttributes(
  gather: CarefulGather,
  sheet: string,
  options: WholePlanOptions,
  prover: SiteProver,
): WholePlan {
  const gathered = (blocks: Attempt): ReturnType<typeof planLookKeepingAttributes> =>
    planLookKeepingAttributes(blocks.site, attributesOperation(blocks, sheet, options), prover);
  for (let blocks = gather.tried(); blocks; blocks = gather.tried()) {
    const tried = gathered(blocks);
    if (tried.ok) return wholeOf(gather.withReasons(blocks), tried, tried.value.proof, options);
    if (tried.problem.kind === 'beneath') {
      gather.blame(tried.problem.beneath);
      continue;
    }
    const alone = gather.whole(blocks);
    return blocksThenAttributes(alone, alone.site === blocks.site ? tried : gathered(alone), options);
  }
  const none = gather.whole();
  return blocksThenAttributes(none, gathered(none), options);
}

const blocksThenAttributes = (
  blocks: LookKeepingPlan,
  attributes: ReturnType<typeof planLookKeepingAttributes>,
  options: WholePlanOptions,
): WholePlan => wholeOf(blocks, attributes, attributes.ok ? attributes.value.proof : blocks.proof, options);

/** Style attributes may take a sheet of their own. */
const forBlocks = (options: WholePlanOptions): WholePlanOptions =>
  options.maxSheets === undefined || options.keepAttributes || options.sheets !== 'own'
    ? options
    : { ...options, maxSheets: Math.max(1, options.maxSheets - 1) };

/** The rules of a sheet that is there would reach pages that are to link it, or stand before sheets they follow now: a new one. */
function besideSheet(
  site: Site,
  sheet: string,
  options: WholePlanOptions,
  prover: SiteProver,
): Result<WholePlan, OperationProblem> {
  const plan = planStyling(site, freeSheetName(site.files.keys(), folderOf(sheet)), options, prover);
  if (!plan.ok) return plan;
  const why = `With these rules ${sheet} would change the look of a page.`;
  return succeed({
    ...plan.value,
    sheets: plan.value.sheets.map((one) => (one.why === undefined ? { ...one, why } : one)),
  });
}

/** Undefined when style attributes were not to be taken. */
type Attributes =
  | Result<Omit<LookKeepingAttributes, 'proof'>, AttributesProblem | { readonly kind: 'beneath' }>
  | undefined;

/** Into the sheet that takes the rules of blocks, unless pages without such rules would come to link it. */
function attributesOperation(
  { site, sheets, attributesApart }: Attempt,
  sheet: string,
  options: WholePlanOptions,
): GatherAttributes {
  const apart = (options.sheets === 'own' && sheets.length > 0) || attributesApart === true;
  return {
    kind: 'gather-attributes',
    sheet: apart ? attributesSheetBeside(sheet, [...site.files.keys(), sheet]) : sheet,
    ...(options.pages === undefined ? {} : { pages: options.pages }),
    ...(options.ids ? { ids: true } : {}),
    ...(options.important ? { important: true } : {}),
  };
}

/** Into a sheet that is there, blocks and attributes in one go; undefined when anything would differ. */
function bothAtOnce(site: Site, sheet: string, options: WholePlanOptions, prover: SiteProver): WholePlan | undefined {
  const pages = options.pages ?? pagesOf(site).map((page) => page.path);
  const blocks = attempt(site, sheet, { sharing: pages, whole: pages }, forBlocks(options));
  const operation = attributesOperation(blocks, sheet, options);
  const plan = options.keepAttributes
    ? undefined
    : planGatherAttributes(blocks.site, operation, watchFor(blocks.site, prover));
  const applied = plan?.ok ? applyPlan(blocks.site, plan.value) : succeed(blocks.site);
  if (!applied.ok) return undefined;
  const proof = prover.prove(applied.value);
  if (differingIn(proof).length > 0) return undefined;
  const attributes = plan?.ok ? succeed({ operation, plan: plan.value, site: applied.value, stayed: [] }) : plan;
  return wholeOf(blocks, attributes, proof, options);
}

function wholeOf(
  blocks: Attempt & Partial<Pick<LookKeepingPlan, 'exclusions'>>,
  tried: Attributes,
  proof: Proof,
  options: WholePlanOptions,
): WholePlan {
  const attributes = tried?.ok ? tried.value : undefined;
  const left = tried?.ok === false && tried.problem.kind === 'no-attributes' ? tried.problem.left : [];
  const site = attributes?.site ?? blocks.site;
  const excluded = new Map(blocks.exclusions?.map(({ page, reason }) => [page, reason]));
  return {
    operations: [...blocks.operations, ...(attributes ? [attributes.operation] : [])],
    sheets: withAttributes(blocks.sheets, attributes?.plan),
    site,
    proof,
    stays: [
      ...blocksStaying(site, options, excluded),
      ...(options.keepAttributes
        ? []
        : attributesStaying(site, options.pages, attributes?.plan.left ?? left, attributes?.stayed ?? [])),
    ],
  };
}

function withAttributes(sheets: readonly PlannedSheet[], plan: AttributesPlan | undefined): readonly PlannedSheet[] {
  if (!plan) return sheets;
  const pages = [...new Set(plan.groups.flatMap((group) => group.pages))];
  const rules = plan.groups.length;
  if (sheets.some(({ path }) => path === plan.sheet))
    return sheets.map((one) =>
      one.path === plan.sheet
        ? { ...one, rules: one.rules + rules, pages: [...new Set([...one.pages, ...pages])] }
        : one,
    );
  const why =
    sheets.length === 0
      ? undefined
      : 'What style attributes said. Some of these pages hold none of the rules of the main sheet, and would look different with it.';
  return [...sheets, { path: plan.sheet, rules, pages, why }];
}
