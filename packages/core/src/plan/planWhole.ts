import { settingsIn } from '../operations/gather/planSettings.ts';
import { planImportToLink } from '../operations/links/importToLink.ts';
import type { Operation, OperationProblem } from '../operations/operation.ts';
import { applyPlan } from '../operations/readings.ts';
import { parseFile } from '../page/parsePage.ts';
import { SiteProver } from '../proof/siteProver.ts';
import { shownElsewhere } from '../proof/takenIn.ts';
import { succeed, type Result } from '../source/result.ts';
import { pagesOf, type Site, type SiteFile } from '../source/site.ts';
import { hasReading, readingOf } from '../survey/pageReading.ts';
import { freeBeside } from './freeSheetName.ts';
import { planLookKeepingHints } from './planAttributes.ts';
import { planStyling } from './planStyling.ts';
import { presentationalStaying, shownStaying } from './staying.ts';
import type { WholePlan, WholePlanOptions } from './wholePlan.ts';
import { differingIn } from './differing.ts';

/**
 * Everything out of every page, as far as the look stays: embedded blocks, style attributes, then presentational ones where that is asked.
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
  prover.prepare();
  const before = prover.onPage;
  if (onStep) prover.onPage = (done, total) => onStep('proving', done, total);
  try {
    const pages = pagesOf(site);
    const wanted = options.pages && new Set(options.pages);
    for (const [i, file] of pages.entries()) {
      const isToChange = (wanted?.has(file.path) ?? true) && holdsStyling.test(file.text ?? '');
      if (!isToChange) readingOf(file);
      else if (!hasReading(file)) readForBoth(file, prover);
      onStep?.('reading', i + 1, pages.length);
    }
    return planUnshown(site, sheet, options, prover);
  } finally {
    prover.onPage = before;
  }
}

/** Where a page has neither, a plan changes nothing of it but perhaps a link, and the proof may do without reading it. */
const holdsStyling = /<style|\sstyle\s*=/i;

/** One tree serves the plan, which keeps what it reads of a page, and the proof, which keeps how it looks. */
function readForBoth(file: SiteFile, prover: SiteProver): void {
  const tree = parseFile(file);
  readingOf(file, tree);
  prover.look(file, tree);
}

/** A page that others show is left as it is: how it would look there nobody can tell. */
function planUnshown(
  site: Site,
  sheet: string,
  options: WholePlanOptions,
  prover: SiteProver,
): Result<WholePlan, OperationProblem> {
  const asked = options.pages ?? pagesOf(site).map(({ path }) => path);
  const showing = shownElsewhere(site);
  const shown = new Map(asked.flatMap((path) => (showing.has(path) ? [[path, showing.get(path)!] as const] : [])));
  if (shown.size === 0) return planAll(site, sheet, options, prover);
  const plan = planAll(site, sheet, { ...options, pages: asked.filter((path) => !shown.has(path)) }, prover);
  if (!plan.ok) return plan;
  const stays = [...plan.value.stays, ...shownStaying(plan.value.site, shown, options)];
  return succeed({ ...plan.value, stays });
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
  const all = pagesOf(site).flatMap(({ path, text }) =>
    (wanted?.has(path) ?? true) && /<style[^]*@import/i.test(text ?? '') ? [path] : [],
  );
  let chosen: readonly string[] = all;
  while (chosen.length > 0) {
    const some = pages !== undefined || chosen !== all;
    const operation = { kind: 'import-to-link', ...(some ? { pages: chosen } : {}) } as const;
    const plan = planImportToLink(site, operation);
    const applied = plan.ok ? applyPlan(site, plan.value) : undefined;
    if (!applied?.ok) return undefined;
    const differing = differingIn(prover.prove(applied.value)).map(({ path }) => path);
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
