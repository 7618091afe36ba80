import {
  planGatherAttributes,
  type AttributesPlan,
  type AttributesProblem,
  type GatherAttributes,
} from '../operations/gatherAttributes.ts';
import type { Proof } from '../proof/proof.ts';
import { proveSites } from '../proof/proveSites.ts';
import { applyChangeSet } from '../source/changeSet.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import type { Site } from '../source/site.ts';

export interface Stayed {
  readonly key: string;
  readonly page: string;
  readonly reason: string;
}

export interface LookKeepingAttributes {
  readonly operation: GatherAttributes;
  readonly plan: AttributesPlan;
  readonly site: Site;
  /** Of the site as it was against the site after. Always `same`. */
  readonly proof: Proof;
  /** Groups that stay on a page because it would look different, by their key. */
  readonly stayed: readonly Stayed[];
}

const mostRounds = 12;
/** After so many rounds all groups of a page that differs stay. */
const patientRounds = 4;

/**
 * Gathers the style attributes that can go with no visible change: what the proof finds different is taken back, and proved
 * again. `original`: the site to look like, when `site` was changed before.
 */
export function planLookKeepingAttributes(
  site: Site,
  operation: GatherAttributes,
  original = site,
): Result<LookKeepingAttributes, AttributesProblem> {
  const stayed = new Map<string, Stayed>();
  for (let round = 0; round < mostRounds; round++) {
    const tried = {
      ...operation,
      except: [...(operation.except ?? []), ...[...stayed.values()].map(({ key, page }) => ({ key, page }))],
    };
    const plan = planGatherAttributes(site, tried);
    if (!plan.ok) return plan;
    const applied = applyChangeSet(site, plan.value.changes);
    if (!applied.ok) throw new Error(`the plan does not fit the site it was made on: ${applied.problem.kind}`);
    const proof = proveSites(original, applied.value);
    if (proof.verdict === 'same')
      return succeed({ operation: tried, plan: plan.value, site: applied.value, proof, stayed: [...stayed.values()] });
    for (const one of blamed(plan.value, proof, round >= patientRounds)) stayed.set(`${one.page}\n${one.key}`, one);
  }
  return fail({ kind: 'no-attributes' });
}

/** Groups with an element that the proof names; when none is, or `widely`, all groups of the pages that differ. */
function blamed(plan: AttributesPlan, proof: Proof, widely: boolean): readonly Stayed[] {
  return proof.pages.flatMap((page) => {
    if (page.verdict === 'same') return [];
    const reason = page.causes[0]?.reason ?? page.notes[0] ?? 'The page would look different.';
    const here = plan.places.filter((place) => place.page === page.path);
    const differing = new Set(page.causes.flatMap((cause) => cause.elements.map((element) => element.path)));
    const named = widely ? [] : here.filter(({ element }) => differing.has(element));
    if (here.length > 0) return (named.length > 0 ? named : here).map(({ key }) => ({ key, page: page.path, reason }));
    // a page without any of them differs because of what the sheet says: nothing can be taken back singly
    return plan.places.map(({ key, page: other }) => ({ key, page: other, reason }));
  });
}
