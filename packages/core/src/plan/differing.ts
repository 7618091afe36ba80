import type { PageProof, Proof } from '../proof/proof.ts';
import { isTakenInAlone } from '../proof/takenIn.ts';

/** The pages a plan has to do something about: of those that show another page it can only be said that nobody can tell. */
export const differingIn = (proof: Proof): readonly PageProof[] =>
  proof.pages.filter((page) => page.verdict !== 'same' && !isTakenInAlone(page));

/** In one sentence. */
export const reasonOf = (page: PageProof): string =>
  page.causes[0]?.reason ?? page.notes[0] ?? page.doubts[0]?.sentence ?? 'The page would look different.';
