import { planGatherAttributes, type AttributesProblem, type GatherAttributes } from '../operations/gatherAttributes.ts';
import { planImportToLink } from '../operations/links/importToLink.ts';
import type { Operation, OperationProblem } from '../operations/operation.ts';
import { parseSheetPath } from '../operations/sheetPath.ts';
import type { Proof } from '../proof/proof.ts';
import { proveSites } from '../proof/proveSites.ts';
import { succeed, type Result } from '../source/result.ts';
import { applyChangeSet } from '../source/changeSet.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { attributesSheetBeside, freeBeside } from './freeSheetName.ts';
import { planLookKeepingAttributes, planLookKeepingHints, type LookKeepingAttributes } from './planAttributes.ts';
import {
  attempt,
  planLookKeepingGather,
  type Attempt,
  type LookKeepingPlan,
  type PlannedSheet,
  type PlanOptions,
} from './planGather.ts';
import { attributesStaying, blocksStaying, presentationalStaying, type Staying } from './staying.ts';

export interface WholePlanOptions extends PlanOptions {
  /** Style attributes stay on their elements. */
  readonly keepAttributes?: boolean;
  /** Rules ask for the ID of an element where it alone has such a style attribute. */
  readonly ids?: boolean;
  /** Imports of embedded blocks become links first; else they are kept where their block goes. */
  readonly linkImports?: boolean;
  /** Presentational attributes go as well. */
  readonly hints?: boolean;
}

export interface WholePlan {
  /** In order; each is planned on what the ones before it leave. */
  readonly operations: readonly Operation[];
  readonly sheets: readonly PlannedSheet[];
  readonly site: Site;
  /** Of the site as it was against the site after all operations, by their bytes. Always `same`. */
  readonly proof: Proof;
  /** What stays in the pages, and why. */
  readonly stays: readonly Staying[];
}

/** Everything out of every page, as far as the look stays: embedded blocks first, then style attributes. */
export function planWhole(
  site: Site,
  sheet: string,
  options: WholePlanOptions = {},
): Result<WholePlan, OperationProblem> {
  const imports = options.linkImports ? importsLinked(site, options) : undefined;
  const start = imports?.site ?? site;
  const plan = planStyling(start, sheet, options);
  if (!plan.ok) return plan;
  const whole = options.hints ? withHints(start, plan.value, sheet, options) : plan.value;
  if (!imports) return succeed(whole);
  // both steps look the same; what is said of the whole is said of it against the beginning
  const proof = proveSites(site, whole.site);
  return succeed({ ...whole, operations: [imports.operation, ...whole.operations], proof });
}

/** Undefined where no import has a link that says the same, or a page would look different. */
function importsLinked(
  site: Site,
  { pages }: WholePlanOptions,
): { readonly operation: Operation; readonly site: Site } | undefined {
  const operation = { kind: 'import-to-link', ...(pages === undefined ? {} : { pages }) } as const;
  const plan = planImportToLink(site, operation);
  const applied = plan.ok ? applyChangeSet(site, plan.value.changes) : undefined;
  if (!applied?.ok || proveSites(site, applied.value).verdict !== 'same') return undefined;
  return { operation, site: applied.value };
}

function withHints(original: Site, plan: WholePlan, sheet: string, options: WholePlanOptions): WholePlan {
  const path = freeBeside(sheet, plan.site.files.keys(), 'markup');
  const pages = options.pages === undefined ? {} : { pages: options.pages };
  const hints = planLookKeepingHints(plan.site, { kind: 'gather-hints', sheet: path, ...pages }, original);
  if (!hints.ok) return plan;
  const { operation, site, proof, plan: made, stayed } = hints.value;
  const linking = [...new Set(made.groups.flatMap((group) => group.pages))];
  const why = 'What presentational attributes said, as rules that count as little; linked before all other sheets.';
  return {
    ...plan,
    operations: [...plan.operations, operation],
    sheets: [...plan.sheets, { path, rules: made.groups.length, pages: linking, why }],
    site,
    proof,
    stays: [...plan.stays, ...presentationalStaying(site, stayed)],
  };
}

function planStyling(site: Site, sheet: string, options: WholePlanOptions): Result<WholePlan, OperationProblem> {
  // style attributes take a sheet of their own
  const most = options.maxSheets;
  const forBlocks =
    most === undefined || options.keepAttributes ? options : { ...options, maxSheets: Math.max(1, most - 1) };
  const quick = options.keepAttributes ? undefined : tryAtOnce(site, sheet, forBlocks);
  if (quick) return succeed(wholeOf(quick.blocks, quick.attributes, quick.proof, options));
  const blocks = planLookKeepingGather(site, sheet, forBlocks);
  if (!blocks.ok) return blocks;
  const { value } = blocks;
  const wanted = attributesOperation(value.site, sheet, options);
  const attributes = options.keepAttributes ? undefined : planLookKeepingAttributes(value.site, wanted, site);
  return succeed(wholeOf(value, attributes, value.proof, options));
}

/** Undefined when style attributes were not to be taken. */
type Attributes = Result<LookKeepingAttributes, AttributesProblem> | undefined;

const attributesOperation = (site: Site, sheet: string, { pages, ids }: WholePlanOptions): GatherAttributes => ({
  kind: 'gather-attributes',
  sheet: attributesSheetBeside(sheet, site.files.keys()),
  ...(pages === undefined ? {} : { pages }),
  ...(ids ? { ids } : {}),
});

/** Blocks and attributes planned in one go and proved once; undefined when anything would differ. */
function tryAtOnce(
  site: Site,
  sheet: string,
  options: WholePlanOptions,
): { readonly blocks: Attempt; readonly attributes: Attributes; readonly proof: Proof } | undefined {
  const path = parseSheetPath(sheet, site);
  if (!path.ok) return undefined;
  const pages = options.pages ?? pagesOf(site).map((page) => page.path);
  const blocks = attempt(site, path.value, pages, pages, options);
  const operation = attributesOperation(blocks.site, sheet, options);
  const plan = planGatherAttributes(blocks.site, operation);
  const applied = plan.ok ? applyChangeSet(blocks.site, plan.value.changes) : succeed(blocks.site);
  if (!applied.ok) return undefined;
  const proof = proveSites(site, applied.value);
  if (proof.verdict !== 'same') return undefined;
  const attributes = plan.ok ? succeed({ operation, plan: plan.value, site: applied.value, proof, stayed: [] }) : plan;
  return { blocks, attributes, proof };
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
    sheets: [...blocks.sheets, ...(attributes ? [attributesSheet(attributes.plan)] : [])],
    site,
    proof: attributes?.proof ?? proof,
    stays: [
      ...blocksStaying(site, options, excluded),
      ...(options.keepAttributes
        ? []
        : attributesStaying(site, options.pages, attributes?.plan.left ?? left, attributes?.stayed ?? [])),
    ],
  };
}

const attributesSheet = (plan: {
  readonly sheet: string;
  readonly groups: readonly { readonly pages: readonly string[] }[];
}): PlannedSheet => ({
  path: plan.sheet,
  rules: plan.groups.length,
  pages: [...new Set(plan.groups.flatMap((group) => group.pages))],
  why: 'What style attributes said, as classes; linked after all other sheets.',
});
