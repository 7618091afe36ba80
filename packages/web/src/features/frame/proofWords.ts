import type { ProofReply } from '@syndeton/contract';
import { pageName } from '../../ui/format.ts';

/**
 * What a proof says, in the draft bar's words. `differs` is absent when every page looks the same; it says so too where pages look
 * as somebody chose, or where it cannot be told.
 */
export function proofWords(proof: ProofReply): { readonly same: string; readonly differs: string | undefined } {
  const total = proof.pages.length;
  const pagesThat = (verdict: string) => proof.pages.filter((page) => page.verdict === verdict);
  const same = pagesThat('same').length;
  if (same === total)
    return { same: `${total === 1 ? 'The page looks' : `All ${total} pages look`} the same.`, differs: undefined };
  const intended = pagesThat('intended');
  const unsure = pagesThat('unsure').length;
  const differing = proof.pages.filter(
    ({ verdict }) => verdict !== 'same' && verdict !== 'intended' && verdict !== 'unsure',
  );
  const said = [
    looking(differing, 'looks different', 'look different'),
    looking(intended, 'looks as you chose', 'look as you chose'),
    unsure === 0 ? '' : `of ${unsure} it cannot be told`,
  ];
  return {
    same: `${same} ${same === 1 ? 'page looks' : 'pages look'} the same;`,
    differs: said.filter((part) => part !== '').join('; '),
  };
}

const looking = (pages: ProofReply['pages'], one: string, many: string): string =>
  pages.length === 0 ? '' : pages.length === 1 ? `${pageName(pages[0]!.path)} ${one}` : `${pages.length} pages ${many}`;
