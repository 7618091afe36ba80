import type { Cause, PageProof, Proof } from './proof.ts';
import { worstVerdict } from './worstVerdict.ts';

/**
 * A proof that tells what somebody chose to change from what differs besides. `chosen`: of the same beginning against the state
 * that the chosen changes alone leave. A difference is intended if it is there as well: the same property of the same elements,
 * from the same value to the same value.
 */
export function markIntended(proof: Proof, chosen: Proof): Proof {
  const intents = new Map(chosen.pages.map((page) => [page.path, page]));
  const pages = proof.pages.map((page) => markPage(page, intents.get(page.path)));
  return { ...proof, pages, verdict: worstVerdict(pages) };
}

function markPage(page: PageProof, chosen: PageProof | undefined): PageProof {
  if (page.causes.length === 0 || !chosen || chosen.causes.length === 0) return page;
  const wanted = new Map<string, Set<string>>();
  for (const cause of chosen.causes) {
    const elements = wanted.get(keyOf(cause)) ?? new Set();
    for (const { path } of cause.elements) elements.add(path);
    wanted.set(keyOf(cause), elements);
  }
  const causes = page.causes.map((cause): Cause => {
    const elements = wanted.get(keyOf(cause));
    return cause.elements.every(({ path }) => elements?.has(path)) ? { ...cause, intended: true } : cause;
  });
  // of very many elements not all are explained
  const all = causes.every(({ intended }) => intended) && page.differingElements <= chosen.differingElements;
  const verdict = page.verdict === 'differs' && page.notes.length === 0 && all ? (page.doubts.length > 0 ? 'unsure' : 'intended') : page.verdict; // prettier-ignore
  return { ...page, causes, verdict };
}

const keyOf = ({ pseudoElement, property, before, after }: Cause): string =>
  [pseudoElement, property, before?.value, before?.important, after?.value, after?.important].join('\n');
