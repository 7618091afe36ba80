import type { Site } from '../source/site.ts';
import type { Known } from './operationType.ts';
import { applyOperations, describeOperationProblem, type DraftSite, type Operation } from './operation.ts';

/** A site after as many of the operations as could be planned. */
export interface KeptDraftState extends DraftSite {
  readonly problem?: { readonly index: number; readonly detail: string };
}

/** The operations of a draft, with what each of them left: a list that begins like the last one goes on from there. */
export class KeptDraft {
  private steps: { readonly operation: string; after: DraftSite | undefined }[] = [];
  private readonly before: Site;
  private readonly known: Known | undefined;

  /** `known`: what is known of the site's states already. */
  constructor(before: Site, known?: Known) {
    this.before = before;
    this.known = known;
  }

  /** The state after the operations asked for last; undefined before any were. */
  get newest(): Site | undefined {
    return this.steps.at(-1)?.after?.site;
  }

  apply(operations: readonly Operation[]): KeptDraftState {
    const written = operations.map((operation) => JSON.stringify(operation));
    let alike = 0;
    while (alike < this.steps.length && this.steps[alike]!.operation === written[alike]) alike++;
    while (alike > 0 && this.steps[alike - 1]!.after === undefined) alike--;
    // the old steps stay until the new ones are there: files that come to be the same again are taken from them
    const steps = this.steps.slice(0, alike);
    let at: DraftSite = steps.at(-1)?.after ?? { site: this.before, steps: [] };
    let problem: KeptDraftState['problem'];
    for (const [i, operation] of operations.entries()) {
      if (i < alike) continue;
      const next = applyOperations(at.site, [operation], this.known);
      if (!next.ok) {
        problem = { index: i, detail: describeOperationProblem(next.problem.problem) };
        break;
      }
      at = { site: next.value.site, steps: [...at.steps, ...next.value.steps] };
      steps.push({ operation: written[i]!, after: at });
    }
    this.steps = steps;
    for (const step of steps.slice(0, -statesKept(this.before))) step.after = undefined;
    return problem ? { ...at, problem } : at;
  }
}

/** Each state holds the changed pages once more, so a large site keeps few. */
function statesKept(site: Site): number {
  let bytes = 1;
  for (const file of site.files.values()) if (file.kind !== 'other') bytes += file.size;
  return Math.max(1, Math.min(30, Math.floor(400e6 / bytes)));
}
