import type { PageProof, Proof } from '../proof/proof.ts';

export const differingIn = (proof: Proof): readonly PageProof[] =>
  proof.pages.filter(({ verdict }) => verdict !== 'same');

/** In one sentence. */
export const reasonOf = (page: PageProof): string =>
  page.causes[0]?.reason ?? page.notes[0] ?? page.doubts[0]?.sentence ?? 'The page would look different.';
