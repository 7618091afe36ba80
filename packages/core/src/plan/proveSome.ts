import type { Proof } from '../proof/proof.ts';
import type { SiteProver } from '../proof/siteProver.ts';
import { pagesOf, type Site } from '../source/site.ts';

/** Some pages before all are proved: how far that is says nothing of the whole, so it is told as its beginning. */
export function proveSome(prover: SiteProver, after: Site, only: ReadonlySet<string>): Proof {
  const total = pagesOf(after).length;
  return prover.prove(after, { only, onPage: () => prover.onPage?.(0, total) });
}
