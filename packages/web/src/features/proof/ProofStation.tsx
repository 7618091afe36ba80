import type { DraftInHand } from '../drafts/index.ts';
import type { SiteView } from '../site/index.ts';
import { ProofView } from './ProofView.tsx';

export function ProofStation({ view, inHand }: { readonly view: SiteView; readonly inHand: DraftInHand }) {
  const { draft, proof, progress } = inHand;
  const notSame = proof?.pages.filter((page) => page.verdict !== 'same') ?? [];
  // what nobody chose comes first
  const differing = [...notSame].sort((a, b) => Number(a.verdict === 'intended') - Number(b.verdict === 'intended'));
  const path = view.opened ?? differing[0]?.path ?? view.pages[0];
  return (
    <ProofView
      siteId={view.siteId}
      revision={draft!.base}
      linedUp={draft!.operations.length > 0}
      proof={proof}
      seconds={progress?.status === 'done' ? progress.seconds : undefined}
      path={path}
      missing={draft!.missing}
      nextPage={
        differing.find(
          (page) => page.path !== path && differing.findIndex((d) => d.path === path) < differing.indexOf(page),
        )?.path
      }
      onOpen={view.open}
      onGather={() => view.go('gather')}
    />
  );
}
