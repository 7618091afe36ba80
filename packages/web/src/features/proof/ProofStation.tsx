import { useState } from 'react';
import type { ProofReply } from '@syndeton/contract';
import { sayingBefore } from '@syndeton/core';
import { problemText } from '../../app/api.ts';
import type { DraftInHand } from '../drafts/index.ts';
import { useSitesQuery, type SiteView } from '../site/index.ts';
import { ProofView } from './ProofView.tsx';
import { useComparison } from './useComparison.ts';

export function ProofStation({ view, inHand }: { readonly view: SiteView; readonly inHand: DraftInHand }) {
  const draft = inHand.draft!;
  const { states, choose, isDrafts, proof, failed } = useComparison(view.siteId, inHand, true);
  const { data: sites = [] } = useSitesQuery();
  const notSame = proof?.pages.filter((page) => page.verdict !== 'same') ?? [];
  // what nobody chose comes first
  const differing = [...notSame].sort((a, b) => Number(a.verdict === 'intended') - Number(b.verdict === 'intended'));
  const path = view.opened ?? differing[0]?.path ?? view.pages[0];
  const { progress } = inHand;
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const keep = async (page: string, cause: ProofReply['pages'][number]['causes'][number]): Promise<void> => {
    setProblem(undefined);
    const { elements, pseudoElement } = cause;
    const says = sayingBefore(cause);
    if (!says) return;
    const paths = elements.map((one) => one.path);
    try {
      await inHand.addToDraft([
        { kind: 'keep-look', page, elements: paths, ...(pseudoElement === '' ? {} : { pseudoElement }), says },
      ]);
    } catch (error) {
      setProblem(problemText(error));
    }
  };
  return (
    <ProofView
      siteId={view.siteId}
      states={states}
      chooser={{
        choose,
        revisions: view.site?.revisions ?? [],
        inDraft: draft.operations.length > 0,
        others: sites.filter(({ id }) => id !== view.siteId),
      }}
      proof={proof}
      failed={failed}
      seconds={isDrafts && progress?.status === 'done' ? progress.seconds : undefined}
      path={path}
      missing={draft.missing}
      version={draft.version}
      nextPage={
        differing.find(
          (page) => page.path !== path && differing.findIndex((d) => d.path === path) < differing.indexOf(page),
        )?.path
      }
      onOpen={view.open}
      onGather={() => view.go('gather')}
      onKeep={isDrafts ? (page, cause) => void keep(page, cause) : undefined}
      busy={inHand.changing}
      problem={problem}
    />
  );
}
