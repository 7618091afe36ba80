import type { ProofReply } from '@syndeton/contract';
import { pageName } from '../../ui/format.ts';

/** What a proof says, in the draft bar's words. `differs` is absent when every page looks the same. */
export function proofWords(proof: ProofReply): { readonly same: string; readonly differs: string | undefined } {
  const total = proof.pages.length;
  const differing = proof.pages.filter((page) => page.verdict !== 'same');
  if (differing.length === 0)
    return { same: `${total === 1 ? 'The page looks' : `All ${total} pages look`} the same.`, differs: undefined };
  const same = total - differing.length;
  return {
    same: `${same} ${same === 1 ? 'page looks' : 'pages look'} the same;`,
    differs:
      differing.length === 1
        ? `${pageName(differing[0]!.path)} looks different`
        : `${differing.length} pages look different`,
  };
}
