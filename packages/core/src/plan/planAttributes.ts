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

export interface LookKeepingAttributes {
  readonly operation: GatherAttributes;
  readonly plan: AttributesPlan;
  readonly site: Site;
  /** Of the site as it was against the site after. Always `same`. */
  readonly proof: Proof;
  /** Groups that stay because a page would look different, by their key. */
  readonly stayed: readonly { readonly key: string; readonly reason: string }[];
}

const mostRounds = 12;
/** After so many rounds all groups of a page that differs stay. */
const patientRounds = 4;

/** Gathers the style attributes that can go with no visible change: what the proof finds different is taken back, and proved again. */
export function planLookKeepingAttributes(
  site: Site,
  operation: GatherAttributes,
): Result<LookKeepingAttributes, AttributesProblem> {
  const stayed = new Map<string, string>();
  for (let round = 0; round < mostRounds; round++) {
    const tried = { ...operation, except: [...(operation.except ?? []), ...stayed.keys()] };
    const plan = planGatherAttributes(site, tried);
    if (!plan.ok) return plan;
    const applied = applyChangeSet(site, plan.value.changes);
    if (!applied.ok) throw new Error(`the plan does not fit the site it was made on: ${applied.problem.kind}`);
    const proof = proveSites(site, applied.value);
    if (proof.verdict === 'same') {
      const told = [...stayed].map(([key, reason]) => ({ key, reason }));
      return succeed({ operation: tried, plan: plan.value, site: applied.value, proof, stayed: told });
    }
    for (const [key, reason] of blamedGroups(plan.value, proof, round >= patientRounds)) stayed.set(key, reason);
  }
  return fail({ kind: 'no-attributes' });
}

/** Groups with an element on a line the proof names; when none is, or `widely`, all groups of the pages that differ. */
function blamedGroups(plan: AttributesPlan, proof: Proof, widely: boolean): ReadonlyMap<string, string> {
  const out = new Map<string, string>();
  for (const page of proof.pages.filter((p) => p.verdict !== 'same')) {
    const reason = page.causes[0]?.reason ?? page.notes[0] ?? 'the page would look different';
    const here = plan.places.filter((place) => place.page === page.path);
    const lines = new Set(page.causes.flatMap((cause) => cause.elements.map((element) => element.line)));
    const named = widely ? [] : here.filter(({ line }) => lines.has(line));
    for (const { key } of named.length > 0 ? named : here) out.set(key, reason);
    // a page without any of them differs because of the sheet it links: nothing can be taken back singly
    if (here.length === 0) for (const { key } of plan.groups) out.set(key, reason);
  }
  return out;
}
