import { useMemo } from 'react';
import { problemText } from '../../app/api.ts';

import { useKeys } from '../../ui/useKeys.ts';
import { Problem, Waiting } from '../../ui/Said.tsx';
import { usePageBandsQuery, type SiteView } from '../site/index.ts';
import { PageView } from './PageView.tsx';

/** One page opened in the survey. */
export function PageStation({ view, page }: { readonly view: SiteView; readonly page: string }) {
  const at = { id: view.siteId, number: view.site!.revision };
  const { currentData, error } = usePageBandsQuery({ ...at, path: page });
  const pagesOf = useMemo(() => new Map(Object.entries(view.survey!.familyPages)), [view.survey]);
  const { scope } = view;
  const index = Math.max(scope.indexOf(page), 0);
  const step = (by: number): void => view.open(scope[(index + by + scope.length) % scope.length]);
  const propose = (): void => view.go('gather', undefined, { propose: true }, [page]);
  useKeys({ j: () => step(1), k: () => step(-1), p: propose, escape: () => view.open(undefined) });
  if (error) return <Problem className="p-6">{problemText(error)}</Problem>;
  if (!currentData) return <Waiting>Reading {page} …</Waiting>;
  // of several the one that reaches most elements
  const [override] = view
    .survey!.findings.filter(
      (f) => f.kind === 'override' && f.pages.includes(page) && !f.sentence.startsWith('`style='),
    )
    .sort((a, b) => elementsIn(b.sentence) - elementsIn(a.sentence));
  return (
    <PageView
      key={page}
      page={currentData}
      number={index + 1}
      of={scope.length}
      line={view.line}
      pagesOf={pagesOf}
      override={override}
      onAll={() => view.open(undefined)}
      onNext={() => step(1)}
      onBack={() => step(-1)}
      onSheet={(path) => view.go('sheets', path)}
      onPropose={propose}
    />
  );
}

const elementsIn = (sentence: string): number =>
  Number(/ on ([\d,]+) elements?/.exec(sentence)?.[1]?.replace(',', '') ?? 0);
