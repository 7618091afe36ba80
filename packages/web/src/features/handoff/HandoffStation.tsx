import { useState } from 'react';
import type { DraftInHand } from '../drafts/index.ts';
import type { SiteView } from '../site/index.ts';
import { problemText } from '../../app/api.ts';
import { useChangesSinceQuery, useReportQuery } from './handoffApi.ts';
import { ChangedTexts } from '../texts/index.ts';
import { ComingBack } from './ComingBack.tsx';
import { HandoffView } from './HandoffView.tsx';
import { UploadRow } from './UploadRow.tsx';
import { RecipeRow } from './RecipeRow.tsx';

export function HandoffStation({ view, inHand }: { readonly view: SiteView; readonly inHand: DraftInHand }) {
  const site = view.site!;
  const [texts, setTexts] = useState(false);
  const { data: changes } = useChangesSinceQuery({ id: site.id, number: site.revision, since: 1 });
  const { currentData: report, error } = useReportQuery({ id: site.id, number: site.revision, since: 1 });
  return (
    <>
      <HandoffView
        report={report}
        failed={error === undefined ? undefined : problemText(error)}
        onProof={(page) =>
          view.goWith('proof', { from: '1', to: String(site.revision), ...(page === undefined ? {} : { open: page }) })
        }
        onPlace={(path, line) => view.openAt(/\.css$/i.test(path) ? 'sheets' : 'survey', path, line)}
        site={site}
        changes={changes}
        more={
          <>
            <UploadRow siteId={site.id} revision={site.revision} changed={changes?.length ?? 0} />
            <RecipeRow siteId={site.id} revision={site.revision} inHand={inHand} onAdded={() => view.go('proof')} />
          </>
        }
        below={<ComingBack view={view} inHand={inHand} />}
        inDraft={inHand.draft!.operations.length}
        onGather={() => view.go('gather')}
        onTexts={() => setTexts(true)}
      />
      {texts && changes && (
        <ChangedTexts
          between={{ siteId: site.id, from: 'r1', to: `r${site.revision}` }}
          changes={changes}
          onClose={() => setTexts(false)}
        />
      )}
    </>
  );
}
