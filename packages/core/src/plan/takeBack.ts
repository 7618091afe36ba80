import { applyPlan, type ReadingMakers } from '../operations/readings.ts';
import type { PageProof, Proof } from '../proof/proof.ts';
import type { SiteProver } from '../proof/siteProver.ts';
import type { ChangeSet } from '../source/changeSet.ts';
import { succeed, type Result } from '../source/result.ts';
import { pagesOf, type Site } from '../source/site.ts';
import { differingIn, reasonOf } from './differing.ts';
import { proveSome } from './proveSome.ts';

/** A group that stays on a page because it would look different. */
export interface Stayed {
  readonly key: string;
  readonly page: string;
  readonly reason: string;
  /** An element that has it, by its path in the page. */
  readonly element: string;
}

/** A plan that puts something in place of groups of attributes, element by element. */
interface GroupPlan {
  readonly changes: ChangeSet;
  readonly readings?: ReadingMakers;
  readonly places: readonly { readonly page: string; readonly key: string; readonly element: string }[];
}

export interface Kept<Plan> {
  readonly plan: Plan;
  readonly site: Site;
  /** Against the beginning, by bytes: `same`, but for pages that show others (`takenIn.ts`). */
  readonly proof: Proof;
  readonly stayed: readonly Stayed[];
}

const mostRounds = 12;
/** After so many rounds all groups of a page that differs stay. */
const patientRounds = 4;

/** Pages that look different on the site the groups are taken from, whatever is done about these. */
export interface Beneath {
  readonly beneath: readonly PageProof[];
}

/**
 * Plans again and again, leaving out on each page what the proof found different; undefined when that never ends. `carefully`: a page
 * without any of the groups differed, so that no rule may mean what it does not mean now. `site` may be changed itself and not be
 * proved yet: where a page differs and no element with a group does, it is asked whether that is so without them.
 */
export function takeBack<Plan extends GroupPlan, Problem>(
  prover: SiteProver,
  site: Site,
  planWithout: (stayed: readonly Stayed[], carefully: boolean) => Result<Plan, Problem>,
): Result<Kept<Plan> | Beneath | undefined, Problem> {
  const stayed = new Map<string, Stayed>();
  let carefully = false;
  let suspects: ReadonlySet<string> | undefined;
  for (let round = 0; round < mostRounds; round++) {
    const plan = planWithout([...stayed.values()], carefully);
    if (!plan.ok) return plan;
    const applied = applyPlan(site, plan.value);
    if (!applied.ok) throw new Error(`the plan does not fit the site it was made on: ${applied.problem.kind}`);
    const proof = proveSuspectsFirst(prover, applied.value, suspects);
    if (differingIn(proof).length === 0)
      return succeed({ plan: plan.value, site: applied.value, proof, stayed: [...stayed.values()] });
    const differing = differingIn(proof);
    suspects = new Set(differing.map(({ path }) => path));
    const beneath = differingBeneath(prover, site, plan.value, differing);
    if (beneath.length > 0) return succeed({ beneath });
    const beyond = differing.some(({ path }) => !plan.value.places.some(({ page }) => page === path));
    if (beyond && !carefully) {
      carefully = true;
      continue;
    }
    for (const one of blamed(plan.value, differing, round >= patientRounds)) stayed.set(`${one.page}\n${one.key}`, one);
  }
  return succeed(undefined);
}

/** The few pages that differed before, then all; only where these are the same is the proof of the whole site. */
function proveSuspectsFirst(prover: SiteProver, after: Site, suspects: ReadonlySet<string> | undefined): Proof {
  if (suspects && suspects.size * 4 < pagesOf(after).length) {
    const proof = proveSome(prover, after, suspects);
    if (differingIn(proof).length > 0) return proof;
  }
  return prover.prove(after);
}

/** Pages where no element with a group differs, and that differ without the plan as well. */
function differingBeneath(
  prover: SiteProver,
  site: Site,
  plan: GroupPlan,
  differing: readonly PageProof[],
): readonly PageProof[] {
  const unexplained = differing.filter((page) => namedOn(plan, page).length === 0).map(({ path }) => path);
  return unexplained.length === 0 ? [] : differingIn(proveSome(prover, site, new Set(unexplained)));
}

/** The places of groups whose element the proof names. */
function namedOn(plan: GroupPlan, page: PageProof): GroupPlan['places'] {
  const paths = new Set(
    [...page.causes, ...page.doubts].flatMap(({ elements }) => elements.map((element) => element.path)),
  );
  return plan.places.filter((place) => place.page === page.path && paths.has(place.element));
}

/** Groups with an element that the proof names; when none is, or `widely`, all groups of the pages that differ. */
function blamed(plan: GroupPlan, differing: readonly PageProof[], widely: boolean): readonly Stayed[] {
  return differing.flatMap((page) => {
    const reason = reasonOf(page);
    const here = plan.places.filter((place) => place.page === page.path);
    const named = widely ? [] : namedOn(plan, page);
    if (here.length > 0)
      return (named.length > 0 ? named : here).map(({ key, element }) => ({ key, element, page: page.path, reason }));
    // a page without any of them differs because of what the sheet says: nothing can be taken back singly
    return plan.places.map(({ key, element, page: other }) => ({ key, element, page: other, reason }));
  });
}
