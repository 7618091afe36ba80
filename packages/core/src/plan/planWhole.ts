import { applyPlan } from '../operations/readings.ts';
import {
  planGatherAttributes,
  type AttributesPlan,
  type AttributesProblem,
  type GatherAttributes,
} from '../operations/gather/gatherAttributes.ts';
import { settingsIn } from '../operations/gather/planSettings.ts';
import { planImportToLink } from '../operations/links/importToLink.ts';
import type { Operation, OperationProblem } from '../operations/operation.ts';
import { parseSheetPath } from '../operations/sheetPath.ts';
import type { Proof } from '../proof/proof.ts';
import { SiteProver } from '../proof/siteProver.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { folderOf } from '../source/sitePath.ts';
import { readingOf } from '../survey/pageReading.ts';
import { attributesSheetBeside, freeBeside, freeSheetName } from './freeSheetName.ts';
import {
  planLookKeepingAttributes,
  planLookKeepingHints,
  watchFor,
  type LookKeepingAttributes,
} from './planAttributes.ts';
import { attempt, planLookKeepingGather, type LookKeepingPlan } from './planGather.ts';
import type { Attempt, PlannedSheet, PlanOptions } from './planOptions.ts';
import { attributesStaying, blocksStaying, presentationalStaying, type Staying } from './staying.ts';

export interface WholePlanOptions extends PlanOptions {
  /** Rules ask for the ID of an element where it alone has such a style attribute. */
  readonly ids?: boolean;
  /** Important declarations in place of stronger selectors. */
  readonly important?: boolean;
  /** Imports of embedded blocks are kept where their block goes; else they become links first, where that says the same. */
  readonly keepImports?: boolean;
  /** Told how far it is: pages are read first, then one state after the other is proved. */
  readonly onStep?: (step: 'reading' | 'proving', done: number, total: number) => void;
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
  const { onStep } = options;
  if (!onStep) return planAll(site, sheet, options, prover);
  const before = prover.onPage;
  prover.onPage = (done, total) => onStep('proving', done, total);
  try {
    const pages = pagesOf(site);
    // what is read here is kept for the plan
    pages.forEach((file, i) => {
      readingOf(file);
      onStep('reading', i + 1, pages.length);
    });
    return planAll(site, sheet, options, prover);
  } finally {
    prover.onPage = before;
  }
}

function planAll(
  site: Site,
  sheet: string,
  options: WholePlanOptions,
  prover: SiteProver,
): Result<WholePlan, OperationProblem> {
  const imports = options.keepImports ? undefined : importsLinked(site, options, prover);
  const start = imports?.site ?? site;
  const plan = planStyling(start, sheet, options, prover);
  if (!plan.ok) return plan;
  const whole = options.hints ? withHints(plan.value, sheet, options, prover) : plan.value;
  const operations = asAsked(whole.operations, options);
  return succeed({ ...whole, operations: imports ? [imports.operation, ...operations] : operations });
}

/** The sheet says how it was asked for, so that the plan can be made the same way elsewhere. */
function asAsked(operations: readonly Operation[], options: WholePlanOptions): readonly Operation[] {
  const asked = settingsIn(options);
  const main = operations.find(({ kind }) => kind === 'gather-sheet');
  return asked ? operations.map((one) => (one === main ? { ...main, asked } : one)) : operations;
}

/** On the pages that look the same with links; undefined where none does. */
function importsLinked(
  site: Site,
  { pages }: WholePlanOptions,
  prover: SiteProver,
): { readonly operation: Operation; readonly site: Site } | undefined {
  const wanted = pages && new Set(pages);
  const all = pagesOf(site).flatMap(({ path, text }) => ((wanted?.has(path) ?? true) && /<style[^]*@import/i.test(text ?? '') ? [path] : [])); // prettier-ignore
  let chosen: readonly string[] = all;
  while (chosen.length > 0) {
    const some = pages !== undefined || chosen !== all;
    const operation = { kind: 'import-to-link', ...(some ? { pages: chosen } : {}) } as const;
    const plan = planImportToLink(site, operation);
    const applied = plan.ok ? applyPlan(site, plan.value) : undefined;
    if (!applied?.ok) return undefined;
    const differing = prover.prove(applied.value).pages.filter(({ verdict }) => verdict !== 'same').map(({ path }) => path); // prettier-ignore
    if (differing.length === 0) return { operation, site: applied.value };
    const rest = chosen.filter((page) => !differing.includes(page));
    if (rest.length === chosen.length) return undefined;
    chosen = rest;
  }
  return undefined;
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
  const why =
    'What presentational attributes said, as rules that every other rule beats; linked before all other sheets.';
  return {
    ...plan,
    operations: [...plan.operations, operation],
    sheets: rules.length === 0 ? plan.sheets : [...plan.sheets, { path, rules: rules.length, pages: linking, why }],
    site,
    proof,
    stays: [...plan.stays, ...presentationalStaying(site, stayed, made.left)],
  };
}

/** Blocks first: what rules ask for then decides how strong the classes of style attributes have to be. */
function planStyling(
  site: Site,
  sheet: string,
  options: WholePlanOptions,
  prover: SiteProver,
): Result<WholePlan, OperationProblem> {
  const path = parseSheetPath(sheet, site);
  if (!path.ok) return fail({ kind: 'sheet-path', path: path.problem });
  const both = bothAtOnce(site, path.value, options, prover);
  if (both) return succeed(both);
  if (site.files.has(path.value)) return besideSheet(site, path.value, options, prover);
  const blocks = planLookKeepingGather(site, path.value, forBlocks(options), prover);
  if (!blocks.ok) return blocks;
  if (options.keepAttributes) return succeed(wholeOf(blocks.value, undefined, blocks.value.proof, options));
  const operation = attributesOperation(blocks.value, path.value, options);
  const attributes = planLookKeepingAttributes(blocks.value.site, operation, prover);
  const proof = attributes.ok ? attributes.value.proof : blocks.value.proof;
  return succeed(wholeOf(blocks.value, attributes, proof, options));
}

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
  return succeed({ ...plan.value, sheets: plan.value.sheets.map((one) => (one.why === undefined ? { ...one, why } : one)) }); // prettier-ignore
}

/** Undefined when style attributes were not to be taken. */
type Attributes = Result<Omit<LookKeepingAttributes, 'proof'>, AttributesProblem> | undefined;

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

/** Blocks and attributes planned in one go and proved once; undefined when anything would differ. */
function bothAtOnce(site: Site, sheet: string, options: WholePlanOptions, prover: SiteProver): WholePlan | undefined {
  const pages = options.pages ?? pagesOf(site).map((page) => page.path);
  const blocks = attempt(site, sheet, { sharing: pages, whole: pages }, forBlocks(options));
  const operation = attributesOperation(blocks, sheet, options);
  const plan = options.keepAttributes ? undefined : planGatherAttributes(blocks.site, operation, watchFor(blocks.site, prover)); // prettier-ignore
  const applied = plan?.ok ? applyPlan(blocks.site, plan.value) : succeed(blocks.site);
  if (!applied.ok) return undefined;
  const proof = prover.prove(applied.value);
  if (proof.verdict !== 'same') return undefined;
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
