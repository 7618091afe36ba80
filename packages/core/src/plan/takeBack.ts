import { applyPlan, type ReadingMakers } from '../operations/readings.ts';
import type { Proof } from '../proof/proof.ts';
import type { SiteProver } from '../proof/siteProver.ts';
import type { ChangeSet } from '../source/changeSet.ts';
import { succeed, type Result } from '../source/result.ts';
import type { Site } from '../source/site.ts';

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
  /** Against the beginning, by bytes. Always `same`. */
  readonly proof: Proof;
  readonly stayed: readonly Stayed[];
}

const mostRounds = 12;
/** After so many rounds all groups of a page that differs stay. */
const patientRounds = 4;

/**
 * Plans again and again, leaving out on each page what the proof found different; undefined when that never ends. `carefully`: a page
 * without any of the groups differed, so that no rule may mean what it does not mean now.
 */
export function takeBack<Plan extends GroupPlan, Problem>(
  prover: SiteProver,
  site: Site,
  planWithout: (stayed: readonly Stayed[], carefully: boolean) => Result<Plan, Problem>,
): Result<Kept<Plan> | undefined, Problem> {
  const stayed = new Map<string, Stayed>();
  let carefully = false;
  for (let round = 0; round < mostRounds; round++) {
    const plan = planWithout([...stayed.values()], carefully);
    if (!plan.ok) return plan;
    const applied = applyPlan(site, plan.value);
    if (!applied.ok) throw new Error(`the plan does not fit the site it was made on: ${applied.problem.kind}`);
    const proof = prover.prove(applied.value);
    if (proof.verdict === 'same')
      return succeed({ plan: plan.value, site: applied.value, proof, stayed: [...stayed.values()] });
    const beyond = proof.pages.some(({ verdict, path }) => verdict !== 'same' && !plan.value.places.some(({ page }) => page === path)); // prettier-ignore
    if (beyond && !carefully) {
      carefully = true;
      continue;
    }
    for (const one of blamed(plan.value, proof, round >= patientRounds)) stayed.set(`${one.page}\n${one.key}`, one);
  }
  return succeed(undefined);
}

/** Groups with an element that the proof names; when none is, or `widely`, all groups of the pages that differ. */
function blamed(plan: GroupPlan, proof: Proof, widely: boolean): readonly Stayed[] {
  return proof.pages.flatMap((page) => {
    if (page.verdict === 'same') return [];
    const reason =
      page.causes[0]?.reason ?? page.notes[0] ?? page.doubts[0]?.sentence ?? 'The page would look different.';
    const here = plan.places.filter((place) => place.page === page.path);
    const differing = new Set(
      [...page.causes, ...page.doubts].flatMap(({ elements }) => elements.map((element) => element.path)),
    );
    const named = widely ? [] : here.filter(({ element }) => differing.has(element));
    if (here.length > 0)
      return (named.length > 0 ? named : here).map(({ key, element }) => ({ key, element, page: page.path, reason }));
    // a page without any of them differs because of what the sheet says: nothing can be taken back singly
    return plan.places.map(({ key, element, page: other }) => ({ key, element, page: other, reason }));
  });
}
