import type { PageProof, Proof } from './proof.ts';

/** What is to be said of a site by what is said of its pages. */
export function worstVerdict(pages: readonly Pick<PageProof, 'verdict'>[]): Proof['verdict'] {
  const said = new Set(pages.map(({ verdict }) => verdict));
  if (said.has('differs') || said.has('added') || said.has('removed')) return 'differs';
  if (said.has('unsure')) return 'unsure';
  return said.has('intended') ? 'intended' : 'same';
}
