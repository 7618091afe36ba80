import { applyChangeSet } from '../source/changeSet.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { parsePage } from '../page/parsePage.ts';
import { embeddedBlocks } from '../survey/blockUnits.ts';
import { planGatherRules, type GatherPlan, type GatherProblem, type GatherRules, type RuleChoice } from '../operations/gatherRules.ts';
import type { OperationProblem } from '../operations/operation.ts';
import { proveSites } from '../proof/proveSites.ts';
import type { Cause, PageProof, Proof } from '../proof/proof.ts';

/** Why a rule or page was left out of the plan, in words. */
export interface PlanExclusion {
  readonly page: string | undefined;
  readonly label: string | undefined;
  readonly family: string | undefined;
  readonly reason: string;
}

export interface LookKeepingPlan {
  readonly operation: GatherRules;
  readonly plan: GatherPlan;
  readonly site: Site;
  readonly proof: Proof;
  readonly excluded: readonly PlanExclusion[];
  readonly rounds: number;
}

export interface PlanOptions {
  readonly pages?: readonly string[];
  readonly rules?: readonly RuleChoice[];
  readonly onRound?: (round: number, differing: number) => void;
}

const mostRounds = 24;

/**
 * The largest gathering of embedded rules into one sheet that the proof calls the same on every page.
 *
 * All rules are tried first. Where the proof finds a difference, the rules to blame stay in their pages, and it is tried again;
 * a page that still differs when no rule can be blamed keeps its blocks whole.
 */
export function planLookKeepingGather(site: Site, sheet: string, options: PlanOptions = {}): Result<LookKeepingPlan | undefined, GatherProblem | OperationProblem> {
  const except = new Map<string, RuleChoice>();
  let pages = options.pages ?? pagesOf(site).map((page) => page.path);
  const excluded: PlanExclusion[] = [];
  for (let round = 1; round <= mostRounds; round++) {
    const operation: GatherRules = { kind: 'gather-rules', sheet, pages, ...(options.rules ? { rules: options.rules } : {}), except: [...except.values()] };
    const plan = planGatherRules(site, operation);
    if (!plan.ok) return plan.problem.kind === 'nothing-to-gather' ? succeed(undefined) : plan;
    const applied = applyChangeSet(site, plan.value.changes);
    if (!applied.ok) return fail(applied.problem);
    const proof = proveSites(site, applied.value);
    const differing = proof.pages.filter((page) => page.verdict !== 'same');
    options.onRound?.(round, differing.length);
    if (differing.length === 0) return succeed({ operation, plan: plan.value, site: applied.value, proof, excluded, rounds: round });
    const blamed = blame(differing, plan.value, site, round);
    for (const rule of blamed) {
      except.set(`${rule.choice.family}\n${rule.choice.version ?? ''}`, rule.choice);
      excluded.push({ page: rule.page, label: rule.label, family: rule.choice.family, reason: rule.reason });
    }
    if (blamed.length === 0) {
      const stuck = new Set(differing.map((page) => page.path));
      const shrunk = pages.filter((page) => !stuck.has(page));
      // a page that differs though nothing was taken from it differs by the sheet it already links: nothing can be gathered there
      if (shrunk.length === pages.length) return succeed(undefined);
      for (const page of differing) excluded.push({ page: page.path, label: undefined, family: undefined, reason: reasonOf(page) });
      pages = shrunk;
    }
  }
  return succeed(undefined);
}

const reasonOf = (page: PageProof): string => page.causes[0]?.reason ?? page.notes[0] ?? 'The page would look different.';

interface Blamed {
  readonly choice: RuleChoice;
  readonly label: string;
  readonly page: string;
  readonly reason: string;
}

/**
 * The gathered rules that the differences point at: a rule of the sheet that reaches an element it did not reach, or one that
 * no longer stands where it stood. Of rules at odds, those on fewer pages are blamed first; late rounds blame all.
 */
function blame(differing: readonly PageProof[], plan: GatherPlan, site: Site, round: number): readonly Blamed[] {
  const spread = pagesOfVersions(site, plan);
  const out = new Map<string, Blamed>();
  for (const page of differing)
    for (const cause of page.causes)
      for (const choice of suspects(cause, plan, spread, page.path, round)) {
        const key = `${choice.family}\n${choice.version}`;
        const label = choice.family.split(' { ').at(-1)!;
        if (!out.has(key)) out.set(key, { choice, label, page: page.path, reason: cause.reason });
      }
  return [...out.values()];
}

function suspects(
  cause: Cause,
  plan: GatherPlan,
  spread: ReadonlyMap<string, ReadonlySet<string>>,
  page: string,
  round: number,
): readonly Required<RuleChoice>[] {
  const named = [cause.after, cause.before].filter((d) => d !== undefined);
  const inReason = plan.moved.filter((m) => named.some((d) => d.selector !== undefined && mentions(m.family, d.selector)) || cause.reason.includes(`\`${lastLabel(m.family)}\``));
  if (inReason.length === 0) return round > 2 ? plan.moved.filter((m) => touchesProperty(m, cause.property)) : [];
  // first what leaks: a rule of other pages that now reaches this one
  const leaks = inReason.filter((m) => !spread.get(`${m.family}\n${m.version}`)?.has(page));
  if (leaks.length > 0) return leaks;
  return inReason;
}

const lastLabel = (family: string): string => family.split(' { ').at(-1)!;

const mentions = (family: string, selector: string): boolean => lastLabel(family).split(',').some((part) => part.trim() === selector.trim());

const touchesProperty = (choice: Required<RuleChoice>, property: string): boolean => choice.version.includes(property.split('-')[0]!);

function pagesOfVersions(site: Site, plan: GatherPlan): ReadonlyMap<string, ReadonlySet<string>> {
  const moved = new Set(plan.moved.map((m) => `${m.family}\n${m.version}`));
  const out = new Map<string, Set<string>>();
  for (const path of plan.pages) {
    const file = site.files.get(path)!;
    for (const block of embeddedBlocks(parsePage(file.text!), path))
      for (const unit of block.units) {
        const key = `${unit.family}\n${unit.version}`;
        if (!moved.has(key)) continue;
        let set = out.get(key);
        if (!set) out.set(key, (set = new Set()));
        set.add(path);
      }
  }
  return out;
}

