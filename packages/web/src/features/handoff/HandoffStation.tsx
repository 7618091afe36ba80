import type { DraftInHand } from '../drafts/index.ts';
import type { SiteView } from '../site/index.ts';
import { useChangesSinceQuery } from './handoffApi.ts';
import { HandoffView } from './HandoffView.tsx';

export function HandoffStation({ view, inHand }: { readonly view: SiteView; readonly inHand: DraftInHand }) {
  const site = view.site!;
  const { data: changes } = useChangesSinceQuery({ id: site.id, number: site.revision, since: 1 });
  return (
    <HandoffView
      site={site}
      changes={changes}
      linedUp={inHand.draft!.operations.length}
      onGather={() => view.go('gather')}
    />
  );
}
