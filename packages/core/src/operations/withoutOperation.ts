import { changedFiles } from '../source/changeSet.ts';
import { fail, succeed, type Result } from '../source/result.ts';
import type { Site, SiteFile } from '../source/site.ts';
import { describeOperationProblem, planOperation, type Operation } from './operation.ts';
import { applyPlan } from './readings.ts';

/** What one revision did: operations, or files that came in some other way. */
export type PastRevision =
  | { readonly number: number; readonly operations: readonly Operation[] }
  | { readonly number: number; readonly before: Site; readonly after: Site };

/** A later revision cannot be done again without what was taken out. */
export interface StillNeeded {
  readonly number: number;
  readonly detail: string;
}

/**
 * The newest state as it would be had one operation never been: what came after it is done again, one revision after the other.
 * Refused where something later cannot be done as it was. `start`: the state the first of the revisions began with.
 */
export function withoutOperation(
  start: Site,
  revisions: readonly PastRevision[],
  index: number,
): Result<Site, StillNeeded> {
  let site = start;
  for (const [at, revision] of revisions.entries()) {
    const next =
      'operations' in revision
        ? redone(
            site,
            revision.operations.filter((_, i) => at > 0 || i !== index),
          )
        : withFiles(site, revision.before, revision.after);
    if (!next.ok) return fail({ number: revision.number, detail: next.problem });
    site = next.value;
  }
  return succeed(site);
}

function redone(site: Site, operations: readonly Operation[]): Result<Site, string> {
  let at = site;
  for (const operation of operations) {
    const plan = planOperation(at, operation);
    if (!plan.ok) return fail(describeOperationProblem(plan.problem));
    const next = applyPlan(at, plan.value);
    if (!next.ok) return fail(describeOperationProblem(next.problem));
    at = next.value;
  }
  return succeed(at);
}

/** Files that a revision changed by itself, where they are what it found then. */
function withFiles(site: Site, before: Site, after: Site): Result<Site, string> {
  const files = new Map<string, SiteFile>(site.files);
  for (const { path } of changedFiles(before, after)) {
    if (site.files.get(path)?.hash !== before.files.get(path)?.hash)
      return fail(`It put ${path} in as a file, which would be another one without the operation.`);
    const now = after.files.get(path);
    if (now) files.set(path, now);
    else files.delete(path);
  }
  return succeed({ ...site, files });
}
