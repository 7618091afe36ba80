import { planGatherBlocks, type GatherBlocks } from '../operations/gather/gatherBlocks.ts';
import type { OperationProblem } from '../operations/operation.ts';
import { applyPlan } from '../operations/readings.ts';
import { parseSheetPath } from '../operations/sheetPath.ts';
import type { Proof } from '../proof/proof.ts';
import { SiteProver } from '../proof/siteProver.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { folderOf } from '../source/sitePath.ts';
import { oneSheet } from './oneSheet/attemptOneSheet.ts';
import { ownSheets } from './ownSheets.ts';
import type { Attempt, AttemptPages, GatherOperation, PlannedSheet, PlanOptions } from './planOptions.ts';

export interface LookKeepingPlan {
  /** In order; each is planned on what the ones before it leave. Empty when nothing can be gathered. */
  readonly operations: readonly GatherOperation[];
  readonly sheets: readonly PlannedSheet[];
  readonly site: Site;
  /** Of the site as it was against the site after all operations, by their bytes. Always `same`. */
  readonly proof: Proof;
  /** Pages that could not take part, and why. */
  readonly exclusions: readonly { readonly page: string; readonly reason: string }[];
}

const mostRounds = 8;

/** What becomes of a page that would look different: first the sheet is made so that nothing else can reach it, then without a class of it. */
const carefulSteps = ['sharing', 'strict', 'unmarked', 'apart', 'untouched'] as const;
type CarefulStep = (typeof carefulSteps)[number];

/**
 * Takes embedded rules out of pages with no visible change, into as few sheets as keep the look.
 *
 * The partition reasons about orders, leaks and what stays between; the proof, on the bytes that would be written, does not
 * believe it: a page that differs leaves the shared plan and gets its blocks as sheets of their own, in their place. `prover`: of
 * the site to look like, when `site` was changed before.
 */
export function planLookKeepingGather(
  site: Site,
  sheet: string,
  options: PlanOptions = {},
  prover = new SiteProver(site),
): Result<LookKeepingPlan, OperationProblem> {
  const path = parseSheetPath(sheet, site);
  if (!path.ok) return fail({ kind: 'sheet-path', path: path.problem });
  const all = options.pages ?? pagesOf(site).map((page) => page.path);
  const steps: readonly CarefulStep[] = options.sheets === 'own' ? ['sharing', 'apart', 'untouched'] : carefulSteps;
  /** How carefully each page that differed is treated now. */
  const careful = new Map<string, { step: CarefulStep; reason: string }>();
  const at = (page: string): CarefulStep => careful.get(page)?.step ?? 'sharing';
  for (let round = 1; round <= mostRounds; round++) {
    const pages: AttemptPages = {
      sharing: all.filter((page) => at(page) !== 'apart' && at(page) !== 'untouched'),
      whole: all.filter((page) => at(page) !== 'untouched'),
      strict: new Set(all.filter((page) => at(page) === 'strict' || at(page) === 'unmarked')),
      unmarkable: new Set(all.filter((page) => at(page) === 'unmarked')),
    };
    const tried = attempt(site, path.value, pages, options);
    // the whole site: a broken link elsewhere might ask for a sheet that comes to be
    const proof = prover.prove(tried.site);
    const differing = proof.pages.filter((page) => page.verdict !== 'same');
    options.onRound?.(round, proof);
    if (differing.length === 0) {
      const exclusions = [...careful].filter(([, { step }]) => step === 'apart' || step === 'untouched').map(([page, { reason }]) => ({ page, reason })); // prettier-ignore
      return succeed({ ...tried, sheets: tried.sheets.map((one) => withReason(one, careful)), proof, exclusions });
    }
    for (const page of differing) {
      const reason =
        page.causes[0]?.reason ?? page.notes[0] ?? page.doubts[0]?.sentence ?? 'The page would look different.';
      const isDoubt = page.causes.length === 0 && page.notes.length === 0;
      const next = nextStep(steps, at(page.path), isDoubt);
      careful.set(page.path, { step: round >= mostRounds - 1 ? 'untouched' : next, reason });
    }
  }
  return succeed({ operations: [], sheets: [], site, proof: prover.prove(site), exclusions: [] });
}

/** Why the blocks of a page went as they stand. */
function withReason(sheet: PlannedSheet, careful: ReadonlyMap<string, { readonly reason: string }>): PlannedSheet {
  const reason = sheet.why === undefined ? undefined : careful.get(sheet.pages[0]!)?.reason;
  return reason === undefined ? sheet : { ...sheet, why: reason };
}

/** What scripts may notice is the class, or the sheets: making sure of the rules changes nothing of that. */
const nextStep = (steps: readonly CarefulStep[], at: CarefulStep, isDoubt: boolean): CarefulStep =>
  isDoubt && at === 'sharing' && steps.includes('unmarked')
    ? 'unmarked'
    : (steps[steps.indexOf(at) + 1] ?? 'untouched');

/** What the rules alone tell of a plan; not proved. */
export function attempt(site: Site, shared: string, pages: AttemptPages, options: PlanOptions): Attempt {
  const single = options.singlePage ?? 'shared';
  const made = options.sheets === 'own' ? ownSheets(site, shared, pages.sharing, options) : oneSheet(site, shared, pages, options); // prettier-ignore
  const { whole } = pages;
  const operations: GatherOperation[] = [...made.operations];
  const sheets: PlannedSheet[] = [...made.sheets];
  const at = made.site;
  const { attributesApart = false } = made;
  if (options.maxSheets !== undefined) return { operations, sheets, site: at, attributesApart };
  const least = single === 'stay' ? { least: 2 } : {};
  const rest: GatherBlocks = { kind: 'gather-blocks', folder: folderOf(shared), pages: whole, ...least, ...(single === 'own' && options.sheets !== 'own' ? { beside: true } : {}) }; // prettier-ignore
  const plan = planGatherBlocks(at, rest);
  const next = plan.ok ? applyPlan(at, plan.value) : undefined;
  if (!plan.ok || !next?.ok) return { operations, sheets, site: at, attributesApart };
  operations.push(rest);
  for (const { path, rules, pages } of plan.value.sheets)
    sheets.push({
      path,
      rules,
      pages,
      why:
        pages.length === 1
          ? `Only ${pages[0]!} has these rules, or has them where no shared sheet could take them.`
          : 'These blocks move as a whole, each in its place among the sources of its page.',
    });
  return { operations, sheets, site: next.value, attributesApart };
}
