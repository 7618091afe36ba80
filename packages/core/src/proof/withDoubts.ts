import type { Doubt, PageProof } from './proof.ts';

/** What was found, with doubts that came up beside it: a page that is the same otherwise cannot be told. */
export const withDoubts = (found: PageProof, doubts: readonly Doubt[]): PageProof =>
  doubts.length === 0
    ? found
    : {
        ...found,
        doubts: [...found.doubts, ...doubts],
        verdict: found.verdict === 'same' ? 'unsure' : found.verdict,
      };
