import type { OperationProblem } from '../operations/operation.ts';
import { parseSheetPath } from '../operations/sheetPath.ts';
import type { PageProof, Proof } from '../proof/proof.ts';
import { SiteProver } from '../proof/siteProver.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { attempt } from './attempt.ts';
import { differingIn, reasonOf } from './differing.ts';
import type { Attempt, GatherOperation, PlannedSheet, PlanOptions } from './planOptions.ts';
import { proveSome } from './proveSome.ts';
import { trialPages } from './trialPages.ts';

export interface LookKeepingPlan {
  /** In order; each is planned on what the ones before it leave. Empty when nothing can be gathered. */
  readonly operations: readonly GatherOperation[];
  readonly sheets: readonly PlannedSheet[];
  readonly site: Site;
  /** Of the site as it was against the site after all operations, by their bytes. Always `same`. */
  readonly proof: Proof;
  /** Pages that could not take part, and why. */
  readonly exclusions: readonly Exclusion[];
}

export interface Exclusion {
  readonly page: string;
  readonly reason: string;
}

/**
 * Takes embedded rules out of pages with no visible change, into as few sheets as keep the look. `prover`: of the site to look like,
 * when `site` was changed before.
 */
export function planLookKeepingGather(
  site: Site,
  sheet: string,
  options: PlanOptions = {},
  prover = new SiteProver(site),
): Result<LookKeepingPlan, OperationProblem> {
  const path = parseSheetPath(sheet, site);
  if (!path.ok) return fail({ kind: 'sheet-path', path: path.problem });
  return succeed(new CarefulGather(site, path.value, options, prover).whole());
}

/** On a site whose pages are tried first, each page may have to be treated more carefully twice over. */
const mostRounds = 16;

/** What becomes of a page that would look different: first the sheet is made so that nothing else can reach it, then without a class of it. */
const carefulSteps = ['sharing', 'strict', 'unmarked', 'apart', 'untouched'] as const;
type CarefulStep = (typeof carefulSteps)[number];

/**
 * Plans anew until no page looks different.
 *
 * The partition reasons about orders, leaks and what stays between; the proof, on the bytes that would be written, does not
 * believe it: a page that differs is treated more carefully, and in the end left alone. On a large site few pages are tried before
 * all are: most that is wrong with a plan shows there.
 */
export class CarefulGather {
  private readonly site: Site;
  private readonly sheet: string;
  private readonly options: PlanOptions;
  private readonly prover: SiteProver;
  private readonly pages: readonly string[];
  private readonly steps: readonly CarefulStep[];
  /** How carefully each page that differed is treated now. */
  private readonly careful = new Map<string, { readonly step: CarefulStep; readonly reason: string }>();
  private rounds = 0;

  constructor(site: Site, sheet: string, options: PlanOptions, prover: SiteProver) {
    this.site = site;
    this.sheet = sheet;
    this.options = options;
    this.prover = prover;
    this.pages = options.pages ?? pagesOf(site).map((page) => page.path);
    this.steps = options.sheets === 'own' ? ['sharing', 'apart', 'untouched'] : carefulSteps;
  }

  /** A plan that is right about the pages that are tried; undefined when none was found. */
  tried(): Attempt | undefined {
    while (this.rounds < mostRounds) {
      const made = this.attempt();
      const trial = trialPages(this.site, this.careful.keys());
      const differing = trial ? differingIn(proveSome(this.prover, made.site, trial)) : [];
      if (differing.length === 0) return made;
      this.blame(differing);
    }
    return undefined;
  }

  /** A plan that is proved; `first`: the one that was made last. */
  whole(first = this.tried()): LookKeepingPlan {
    for (let made = first; made; made = this.tried()) {
      // the whole site: a broken link elsewhere might ask for a sheet that comes to be
      const proof = this.prover.prove(made.site);
      const differing = differingIn(proof);
      if (differing.length === 0) return { ...this.withReasons(made), proof };
      this.blame(differing);
    }
    return { operations: [], sheets: [], site: this.site, proof: this.prover.prove(this.site), exclusions: [] };
  }

  /** These pages would look different with the plan that was made last. */
  blame(differing: readonly PageProof[]): void {
    this.rounds++;
    for (const page of differing) {
      const isDoubt = page.causes.length === 0 && page.notes.length === 0;
      const step = this.rounds >= mostRounds / 2 ? 'untouched' : this.after(this.stepOf(page.path), isDoubt);
      this.careful.set(page.path, { step, reason: reasonOf(page) });
    }
  }

  /** The plan with the pages that could not take part, and why blocks of others go as they stand. */
  withReasons<Made extends Attempt>(made: Made): Made & { readonly exclusions: readonly Exclusion[] } {
    const { careful } = this;
    const sheets = made.sheets.map((sheet): PlannedSheet => {
      const reason = sheet.why === undefined ? undefined : careful.get(sheet.pages[0]!)?.reason;
      return reason === undefined ? sheet : { ...sheet, why: reason };
    });
    const exclusions = [...careful]
      .filter(([, { step }]) => step === 'apart' || step === 'untouched')
      .map(([page, { reason }]) => ({ page, reason }));
    return { ...made, sheets, exclusions };
  }

  private attempt(): Attempt {
    const { pages: all } = this;
    const at = (page: string): CarefulStep => this.stepOf(page);
    const pages = {
      sharing: all.filter((page) => at(page) !== 'apart' && at(page) !== 'untouched'),
      whole: all.filter((page) => at(page) !== 'untouched'),
      strict: new Set(all.filter((page) => at(page) === 'strict' || at(page) === 'unmarked')),
      unmarkable: new Set(all.filter((page) => at(page) === 'unmarked')),
    };
    return attempt(this.site, this.sheet, pages, this.options);
  }

  private stepOf(page: string): CarefulStep {
    return this.careful.get(page)?.step ?? 'sharing';
  }

  /** What scripts may notice is the class, or the sheets: making sure of the rules changes nothing of that. */
  private after(step: CarefulStep, isDoubt: boolean): CarefulStep {
    const { steps } = this;
    if (isDoubt && step === 'sharing' && steps.includes('unmarked')) return 'unmarked';
    return steps[steps.indexOf(step) + 1] ?? 'untouched';
  }
}
