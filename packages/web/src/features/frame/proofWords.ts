import type { ProofReply } from '@syndeton/contract';
import { pageName } from '../../ui/format.ts';

/** What a proof says, in the draft bar's words. `differs` is absent when every page looks the same; it says so too where that cannot be told. */
export function proofWords(proof: ProofReply): { readonly same: string; readonly differs: string | undefined } {
  const total = proof.pages.length;
  const differing = proof.pages.filter((page) => page.verdict !== 'same');
  if (differing.length === 0)
    return { same: `${total === 1 ? 'The page looks' : `All ${total} pages look`} the same.`, differs: undefined };
  const same = total - differing.length;
  const unsure = differing.filter((page) => page.verdict === 'unsure').length;
  const known = differing.filter((page) => page.verdict !== 'unsure');
  const told = unsure === 0 ? '' : `of ${unsure} it cannot be told`;
  return {
    same: `${same} ${same === 1 ? 'page looks' : 'pages look'} the same;`,
    differs: [
      known.length === 0
        ? ''
        : known.length === 1
          ? `${pageName(known[0]!.path)} looks different`
          : `${known.length} pages look different`,
      told,
    ]
      .filter((part) => part !== '')
      .join('; '),
  };
}
