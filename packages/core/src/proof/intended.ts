import { longhandsOf, physicalCounterparts } from '../values/longhands.ts';
import type { Site } from '../source/site.ts';
import type { Cause, PageProof, Proof } from './proof.ts';
import { SiteProver } from './siteProver.ts';
import { worstVerdict } from './worstVerdict.ts';

/**
 * A proof that tells what somebody chose to change from what differs besides. `chosen`: the beginning with the chosen changes alone.
 * A page that is the same as there differs as chosen; of another page a difference is intended where its elements differ from there
 * in nothing it is about.
 */
export function markIntended(proof: Proof, chosen: Site, after: Site): Proof {
  const differing = new Set(proof.pages.filter(({ verdict }) => verdict === 'differs').map(({ path }) => path));
  const beyond = new Map(
    new SiteProver(chosen).prove(after, { only: differing }).pages.map((page) => [page.path, page]),
  );
  const pages = proof.pages.map((page) => (differing.has(page.path) ? markPage(page, beyond.get(page.path)!) : page));
  return { ...proof, pages, verdict: worstVerdict(pages) };
}

function markPage(page: PageProof, beyond: PageProof): PageProof {
  if (beyond.verdict === 'same') {
    const causes = page.causes.map((cause): Cause => ({ ...cause, intended: true }));
    return { ...page, causes, verdict: page.doubts.length > 0 ? 'unsure' : 'intended' };
  }
  // of very many elements not all are explained, and what is no element's may be about any
  const explained = new Set(beyond.causes.flatMap(({ elements }) => elements.map(({ path }) => path)));
  if (beyond.notes.length > 0 || explained.size < beyond.differingElements) return page;
  const isBeyond = (cause: Cause): boolean => {
    const paths = new Set(cause.elements.map(({ path }) => path));
    return beyond.causes.some((other) => meet(cause, other) && other.elements.some(({ path }) => paths.has(path)));
  };
  return { ...page, causes: page.causes.map((cause) => (isBeyond(cause) ? cause : { ...cause, intended: true })) };
}

/** Whether two differences are about some longhand both. */
function meet(a: Cause, b: Cause): boolean {
  const sets = [a, b].map(
    ({ property }) =>
      new Set([property, ...longhandsOf(property)].flatMap((name) => [name, ...physicalCounterparts(name)])),
  );
  return a.pseudoElement === b.pseudoElement && [...sets[0]!].some((name) => sets[1]!.has(name));
}
