import { fail, succeed, type Result } from '../source/result.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { applyChangeSet } from '../source/changeSet.ts';
import { parseSheetPath } from '../operations/sheetPath.ts';
import { planGatherRules, type GatherPlan, type GatherRules, type RuleChoice } from '../operations/gatherRules.ts';
import type { OperationProblem } from '../operations/operation.ts';
import { proveSites } from '../proof/proveSites.ts';
import type { Proof } from '../proof/proof.ts';
import { blame } from './blame.ts';
import { leftoverGroups, widestLeftover } from './leftovers.ts';

/** Why a rule or a page was left out of a sheet, in words. */
export interface PlanExclusion {
  readonly page: string | undefined;
  readonly label: string | undefined;
  readonly reason: string;
}

/** One sheet of the plan, with what it takes. */
export interface PlannedSheet {
  readonly operation: GatherRules;
  readonly plan: GatherPlan;
}

export interface LookKeepingPlan {
  /** In order; each is planned on what the ones before it leave. Empty when nothing can be gathered. */
  readonly sheets: readonly PlannedSheet[];
  readonly site: Site;
  /** Of the site as it was against the site after all operations, by their bytes. Always `same`. */
  readonly proof: Proof;
  /** What went to a sheet of its own instead of the shared one, or stayed, and why. */
  readonly exclusions: readonly PlanExclusion[];
}

export interface PlanOptions {
  readonly pages?: readonly string[];
  /** Give what cannot be shared by all a sheet for its group of pages, or for its page. */
  readonly groupSheets?: boolean;
  readonly onRound?: (round: number, differing: number) => void;
}

/**
 * Takes embedded rules out of pages with no visible change: as many as possible into one shared sheet, and, with `groupSheets`,
 * the rest into sheets for the groups of pages that hold the same rest.
 *
 * Nothing is believed: every step is proved on the bytes it would write, and what the proof finds different is taken back.
 */
export function planLookKeepingGather(
  site: Site,
  sheet: string,
  options: PlanOptions = {},
): Result<LookKeepingPlan, OperationProblem> {
  const path = parseSheetPath(sheet, site);
  if (!path.ok) return fail({ kind: 'sheet-path', path: path.problem });
  const pages = options.pages ?? pagesOf(site).map((page) => page.path);
  const exclusions: PlanExclusion[] = [];
  const sheets: PlannedSheet[] = [];
  let at = site;
  const take = (step: Step): void => {
    sheets.push(step.planned);
    at = step.site;
  };
  const shared = planShared(site, path.value, pages, exclusions, options.onRound);
  if (shared) take(shared);
  if (options.groupSheets ?? true) {
    const tried = new Set<string>();
    for (let attempt = 0; attempt < mostAttempts && sheets.length < mostSharedSheets; attempt++) {
      const group = widestLeftover(at, pages, path.value, tried);
      if (!group) break;
      const next = planShared(at, group.sheet, group.pages, [], options.onRound);
      if (next && next.planned.plan.pages.length > 1) take(next);
    }
    for (const group of leftoverGroups(at, pages, path.value)) {
      const own = tryOperation(site, at, { kind: 'gather-rules', sheet: group.sheet, pages: group.pages });
      if (!own)
        exclusions.push({
          page: group.pages[0],
          label: undefined,
          reason: 'Its blocks stay: a sheet of their own would change the look.',
        });
      else take(own);
    }
  }
  const proof = proveSites(site, at);
  if (proof.verdict !== 'same') return succeed({ sheets: [], site, proof: proveSites(site, site), exclusions });
  return succeed({ sheets, site: at, proof, exclusions });
}

interface Step {
  readonly planned: PlannedSheet;
  readonly site: Site;
}

/** Plans an operation on `at` and keeps it only when the pages it touches look as they did in `original`. */
function tryOperation(original: Site, at: Site, operation: GatherRules): Step | undefined {
  const plan = planGatherRules(at, operation);
  if (!plan.ok) return undefined;
  const applied = applyChangeSet(at, plan.value.changes);
  if (!applied.ok) return undefined;
  const proof = proveSites(original, applied.value, { paths: new Set(plan.value.pages) });
  return proof.verdict === 'same' ? { planned: { operation, plan: plan.value }, site: applied.value } : undefined;
}

const mostRounds = 20;
/** Sheets for many pages; beyond, what is left goes to the sheets of single pages and of pages with one and the same rest. */
const mostSharedSheets = 8;
/** Tries for such sheets: each is proved anew, and on a large site a proof takes its time. */
const mostAttempts = 12;

/** The shared sheet: all rules first; where the proof finds a difference, what is to blame is left out, and it is tried again. */
function planShared(
  site: Site,
  sheet: string,
  allPages: readonly string[],
  exclusions: PlanExclusion[],
  onRound: PlanOptions['onRound'],
): Step | undefined {
  const except = new Map<string, Required<RuleChoice>>();
  let pages = allPages;
  for (let round = 1; round <= mostRounds; round++) {
    const operation: GatherRules = {
      kind: 'gather-rules',
      sheet,
      pages,
      ...(except.size > 0 ? { except: [...except.values()] } : {}),
    };
    const plan = planGatherRules(site, operation);
    if (!plan.ok) return undefined;
    const applied = applyChangeSet(site, plan.value.changes);
    if (!applied.ok) return undefined;
    // a new sheet reaches only the pages that are given a link to it
    const proof = proveSites(site, applied.value, site.files.has(sheet) ? {} : { paths: new Set(plan.value.pages) });
    const differing = proof.pages.filter((page) => page.verdict !== 'same');
    onRound?.(round, differing.length);
    if (differing.length === 0) return { planned: { operation, plan: plan.value }, site: applied.value };
    const verdict = blame(differing, plan.value, site, round > mostRounds / 2);
    for (const { choice, page, label, reason } of verdict.rules) {
      except.set(`${choice.family}\n${choice.version}`, choice);
      exclusions.push({ page, label, reason });
    }
    const shrunk = pages.filter((page) => !verdict.pages.has(page));
    for (const [page, reason] of verdict.pages) exclusions.push({ page, label: undefined, reason });
    if (verdict.rules.length === 0 && shrunk.length === pages.length) return undefined;
    pages = shrunk;
  }
  return undefined;
}
