import type { DraftInHand } from '../drafts/index.ts';
import type { SiteView } from '../site/index.ts';
import { SurveyView } from './SurveyView.tsx';

export function SurveyStation({ view }: { readonly view: SiteView; readonly inHand: DraftInHand }) {
  const survey = view.survey!;
  const inScope = new Set(view.scope);
  return (
    <SurveyView
      pages={survey.pages.filter((page) => inScope.has(page.path))}
      allPages={view.pages}
      scoped={view.scoped}
      repeatedBytes={survey.repeatedBytes}
      blocks={survey.repeatedBlocks.filter((block) => block.pages.some((page) => inScope.has(page)))}
      onAll={() => view.setScope([])}
      onChoose={(page) => view.setScope([page])}
      onGather={() => view.go('gather')}
    />
  );
}
