import type { ProofReply } from '@syndeton/contract';
import { pageName } from '../../ui/format.ts';

/** What a proof says, in the draft bar's words. `differs` is absent when every page looks the same; it says so too where that cannot be told. `intended`: pages whose look somebody chose to change. */
export function proofWords(
  proof: ProofReply,
  intended: ReadonlySet<string> = new Set(),
): { readonly same: string; readonly differs: string | undefined } {
  const total = proof.pages.length;
  const differing = proof.pages.filter((page) => page.verdict !== 'same');
  if (differing.length === 0)
    return { same: `${total === 1 ? 'The page looks' : `All ${total} pages look`} the same.`, differs: undefined };
  const same = total - differing.length;
  const unsure = differing.filter((page) => page.verdict === 'unsure').length;
  const known = differing.filter((page) => page.verdict !== 'unsure');
  const told = unsure === 0 ? '' : `of ${unsure} it cannot be told`;
  const chosen = known.length > 0 && known.every((page) => intended.has(page.path)) ? ', as you chose' : '';
  return {
    same: `${same} ${same === 1 ? 'page looks' : 'pages look'} the same;`,
    differs: [
      known.length === 0
        ? ''
        : known.length === 1
          ? `${pageName(known[0]!.path)} looks different${chosen}`
          : `${known.length} pages look different${chosen}`,
      told,
    ]
      .filter((part) => part !== '')
      .join('; '),
  };
}
