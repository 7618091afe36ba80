import { applyPlan } from '../operations/readings.ts';
import {
  planGatherAttributes,
  type AttributesProblem,
  type GatherAttributes,
} from '../operations/gather/gatherAttributes.ts';
import { planImportToLink } from '../operations/links/importToLink.ts';
import type { Operation, OperationProblem } from '../operations/operation.ts';
import { parseSheetPath } from '../operations/sheetPath.ts';
import type { Proof } from '../proof/proof.ts';
import { SiteProver } from '../proof/siteProver.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { folderOf } from '../source/sitePath.ts';
import { attributesSheetBeside, freeBeside, freeSheetName } from './freeSheetName.ts';
import {
  planLookKeepingAttributes,
  planLookKeepingHints,
  watchFor,
  type LookKeepingAttributes,
} from './planAttributes.ts';
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
  /** Important declarations in place of stronger selectors. */
  readonly important?: boolean;
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

/**
 * Everything out of every page, as far as the look stays: style attributes first, whose pages are read for it once, then embedded blocks.
 * `prover`: one that begins with this site; it knows the plan's proof then, so that nobody need prove it again.
 * `sheet`: a new one, or one that is there; where that would change a look, a new one in its folder.
 */
export function planWhole(
  site: Site,
  sheet: string,
  options: WholePlanOptions = {},
  prover = new SiteProver(site),
): Result<WholePlan, OperationProblem> {
  const imports = options.linkImports ? importsLinked(site, options, prover) : undefined;
  const start = imports?.site ?? site;
  const plan = planStyling(start, sheet, options, prover);
  if (!plan.ok) return plan;
  const whole = options.hints ? withHints(plan.value, sheet, options, prover) : plan.value;
  return succeed(imports ? { ...whole, operations: [imports.operation, ...whole.operations] } : whole);
}

/** Undefined where no import has a link that says the same, or a page would look different. */
function importsLinked(
  site: Site,
  { pages }: WholePlanOptions,
  prover: SiteProver,
): { readonly operation: Operation; readonly site: Site } | undefined {
  const operation = { kind: 'import-to-link', ...(pages === undefined ? {} : { pages }) } as const;
  const plan = planImportToLink(site, operation);
  const applied = plan.ok ? applyPlan(site, plan.value) : undefined;
  if (!applied?.ok || prover.prove(applied.value).verdict !== 'same') return undefined;
  return { operation, site: applied.value };
}

function withHints(plan: WholePlan, sheet: string, options: WholePlanOptions, prover: SiteProver): WholePlan {
  const path = freeBeside(sheet, plan.site.files.keys(), 'markup');
  const pages = options.pages === undefined ? {} : { pages: options.pages };
  const hints = planLookKeepingHints(
    plan.site,
    { kind: 'gather-hints', sheet: path, elements: true, ...pages },
    prover,
  );
  if (!hints.ok) return plan;
  const { operation, site, proof, plan: made, stayed } = hints.value;
  // where elements only get another tag there is no rule
  const rules = made.groups.filter(({ name }) => name !== '');
  const linking = [...new Set(rules.flatMap((group) => group.pages))];
  const why = 'What presentational attributes said, as rules that count as little; linked before all other sheets.';
  return {
    ...plan,
    operations: [...plan.operations, operation],
    sheets: rules.length === 0 ? plan.sheets : [...plan.sheets, { path, rules: rules.length, pages: linking, why }],
    site,
    proof,
    stays: [...plan.stays, ...presentationalStaying(site, stayed, made.left)],
  };
}

function planStyling(
  site: Site,
  sheet: string,
  options: WholePlanOptions,
  prover: SiteProver,
): Result<WholePlan, OperationProblem> {
  const path = parseSheetPath(sheet, site);
  if (!path.ok) return fail({ kind: 'sheet-path', path: path.problem });
  // style attributes take a sheet of their own
  const most = options.maxSheets;
  const forBlocks =
    most === undefined || options.keepAttributes ? options : { ...options, maxSheets: Math.max(1, most - 1) };
  const wanted = attributesOperation(site, path.value, options);
  const quick = tryAtOnce(site, path.value, wanted, forBlocks, prover);
  if (quick) return succeed(wholeOf(quick.blocks, quick.attributes, quick.proof, options));
  if (site.files.has(path.value)) return besideSheet(site, path.value, options, prover);
  const attributes = options.keepAttributes ? undefined : planLookKeepingAttributes(site, wanted, prover);
  const blocks = planLookKeepingGather(attributes?.ok ? attributes.value.site : site, path.value, forBlocks, prover);
  return blocks.ok ? succeed(wholeOf(blocks.value, attributes, blocks.value.proof, options)) : blocks;
}

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
  return succeed({ ...plan.value, sheets: plan.value.sheets.map((one) => (one.why === undefined ? { ...one, why } : one)) }); // prettier-ignore
}

/** Undefined when style attributes were not to be taken. */
type Attributes = Result<Omit<LookKeepingAttributes, 'proof'>, AttributesProblem> | undefined;

const attributesOperation = (
  site: Site,
  sheet: string,
  { pages, ids, important }: WholePlanOptions,
): GatherAttributes => ({
  kind: 'gather-attributes',
  sheet: attributesSheetBeside(sheet, [...site.files.keys(), sheet]),
  ...(pages === undefined ? {} : { pages }),
  ...(ids ? { ids } : {}),
  ...(important ? { important } : {}),
});

/** Attributes and blocks planned in one go and proved once; undefined when anything would differ. */
function tryAtOnce(
  site: Site,
  sheet: string,
  operation: GatherAttributes,
  options: WholePlanOptions,
  prover: SiteProver,
): { readonly blocks: Attempt; readonly attributes: Attributes; readonly proof: Proof } | undefined {
  const pages = options.pages ?? pagesOf(site).map((page) => page.path);
  const plan = options.keepAttributes ? undefined : planGatherAttributes(site, operation, watchFor(site, prover));
  const applied = plan?.ok ? applyPlan(site, plan.value) : succeed(site);
  if (!applied.ok) return undefined;
  const blocks = attempt(applied.value, sheet, pages, pages, options);
  const proof = prover.prove(blocks.site);
  if (proof.verdict !== 'same') return undefined;
  const attributes = plan?.ok ? succeed({ operation, plan: plan.value, site: applied.value, stayed: [] }) : plan;
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
  const { site } = blocks;
  const excluded = new Map(blocks.exclusions?.map(({ page, reason }) => [page, reason]));
  return {
    operations: [...(attributes ? [attributes.operation] : []), ...blocks.operations],
    sheets: [...blocks.sheets, ...(attributes ? [attributesSheet(attributes.plan)] : [])],
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

const attributesSheet = (plan: {
  readonly sheet: string;
  readonly groups: readonly { readonly pages: readonly string[] }[];
}): PlannedSheet => ({
  path: plan.sheet,
  rules: plan.groups.length,
  pages: [...new Set(plan.groups.flatMap((group) => group.pages))],
  why: 'What style attributes said, as classes; linked after all other sheets.',
});
