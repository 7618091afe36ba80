import { useMemo, useState } from 'react';
import type { FindingReply } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { useAskedFirst, type DraftInHand } from '../drafts/index.ts';
import { useMarkupQuery, useReadAsPagesMutation, type SiteView } from '../site/index.ts';
import { PageStation } from '../page/index.ts';
import type { Sorting } from './barsFor.ts';
import { SurveyView } from './SurveyView.tsx';

/** A validator takes a few dozen milliseconds a page: more pages than this are looked at when asked for. */
const mostAsked = 300;

export function SurveyStation({ view, inHand }: { readonly view: SiteView; readonly inHand: DraftInHand }) {
  const survey = view.survey!;
  const [sorting, setSorting] = useState<Sorting>('left in the page');
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const [asking, setAsking] = useState(false);
  const inScope = useMemo(() => new Set(view.scope), [view.scope]);
  const pages = useMemo(() => survey.pages.filter((page) => inScope.has(page.path)), [survey, inScope]);
  const blocks = useMemo(
    () => survey.repeatedBlocks.filter((block) => block.pages.some((page) => inScope.has(page))),
    [survey, inScope],
  );
  // what concerns no page is told of when nothing is chosen
  const isAsked = asking || view.pages.length <= mostAsked;
  const { currentData: markup } = useMarkupQuery({ id: view.siteId, number: inHand.draft!.base }, { skip: !isAsked });
  // asked of the revision: what the draft mends of it is told of no more
  const mended = useMemo(
    () => new Set(inHand.draft!.operations.flatMap((one) => (one.kind === 'mend' ? [one.finding] : []))),
    [inHand.draft],
  );
  const findings = useMemo(
    () =>
      [...survey.findings, ...(markup ?? []).filter(({ id }) => !mended.has(id))].filter(({ pages: on }) =>
        on.length === 0 ? !view.scoped : on.some((page) => inScope.has(page)),
      ),
    [survey, markup, mended, inScope, view.scoped],
  );
  const sheets = useMemo(() => survey.sheets.map((sheet) => sheet.path), [survey]);
  const openPath = (path: string, line?: number): void => {
    if (view.pages.includes(path)) view.open(path, line);
    else if (sheets.includes(path)) view.openAt('sheets', path, line ?? 1);
    else setProblem(`${path} is neither a page nor a sheet, and none of them names it.`);
  };
  const [readAsPages, reading] = useReadAsPagesMutation();
  const asked = useAskedFirst(view.siteId, inHand);
  const act = async (finding: FindingReply): Promise<void> => {
    setProblem(undefined);
    const { does, family } = finding.action;
    if (does === 'compare') view.go('gather', family);
    else if (does === 'look') {
      const place = finding.places.find(({ path }) => inScope.has(path)) ?? finding.places[0];
      if (place) openPath(place.path, place.line);
    } else if (does === 'read') {
      // the finding's subject is the ending
      const endings = [finding.id.slice(finding.id.indexOf(' ') + 1)];
      try {
        await readAsPages({ id: view.siteId, base: view.site!.revision, endings }).unwrap();
      } catch (error) {
        setProblem(problemText(error));
      }
    } else {
      try {
        const { label, asks } = finding.action;
        // what a validator says is looked for again on the pages named alone
        const files = finding.kind === 'page-markup' ? { files: finding.pages } : {};
        await asked.addToDraft(
          `${label}?`,
          [{ kind: 'mend', finding: finding.id, ...files }],
          asks === undefined ? [] : [asks],
        );
      } catch (error) {
        setProblem(problemText(error));
      }
    }
  };
  /** Before all else: what is planned on top then counts with it. */
  const takeAsMissing = async (path: string): Promise<void> => {
    setProblem(undefined);
    try {
      await inHand.change((now) => [{ kind: 'take-as-missing', sheets: [path] }, ...now]);
    } catch (error) {
      setProblem(problemText(error));
    }
  };
  const opened = view.opened !== undefined && view.pages.includes(view.opened) ? view.opened : undefined;
  useKeys(opened === undefined ? { p: () => view.go('gather', undefined, { propose: true }) } : {});
  if (opened !== undefined) return <PageStation view={view} page={opened} />;
  return (
    <>
      <SurveyView
        pages={pages}
        allPages={view.pages}
        sheets={sheets}
        scoped={view.scoped}
        repeatedBytes={survey.repeatedBytes}
        blocks={blocks}
        findings={findings}
        markup={markup ? 'known' : isAsked ? 'asked' : 'unasked'}
        onMarkup={() => setAsking(true)}
        sorting={sorting}
        busy={inHand.changing || asked.looking || reading.isLoading}
        problem={problem}
        onAll={() => view.setScope([])}
        onChoose={(chosen) => (chosen.length === 1 ? view.open(chosen[0]) : view.setScope(chosen))}
        onSort={setSorting}
        onPath={openPath}
        onAct={(finding) => void act(finding)}
        nowhere={inHand.draft!.missing}
        onNowhere={(path) => void takeAsMissing(path)}
        onPropose={() => view.go('gather', undefined, { propose: true })}
      />
      {asked.question}
    </>
  );
}
