import { Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { problemText } from '../../app/api.ts';
import { actLook, frameLook } from '../../ui/looks.ts';
import { Button } from '../../ui/Button.tsx';
import { Finder, type Findable } from '../../ui/Finder.tsx';
import { Guarded } from '../../ui/Guarded.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { whenIdle } from '../../ui/whenIdle.ts';
import { Waiting } from '../../ui/Said.tsx';
import { useDraft } from '../drafts/index.ts';
import { GatherStation } from '../gather/index.ts';
import { HandoffStation } from '../handoff/index.ts';
import { LinksStation } from '../links/index.ts';
import { useMayOnlyLook } from '../people/index.ts';
import { PrecedenceStation, useOverridesCount } from '../precedence/index.ts';
import { ProofStation, useComparison, verdictMark } from '../proof/index.ts';
import { SheetsStation, useUnfinishedSheets } from '../sheets/index.ts';
import {
  stationNames,
  stationTitle,
  useFamiliesQuery,
  useSitesQuery,
  useSiteView,
  type SiteView,
} from '../site/index.ts';
import { HistoryBox } from '../history/index.ts';
import { SurveyStation } from '../survey/index.ts';
import { BroughtIn } from './BroughtIn.tsx';
import { DraftBar } from './DraftBar.tsx';
import { HeadBar } from './HeadBar.tsx';
import { ChangedTexts, RevisionTexts } from '../texts/index.ts';
import { KeysHelp } from './KeysHelp.tsx';
import { PagesRail } from './PagesRail.tsx';
import { RailLegend } from './RailLegend.tsx';
import { Spine } from './Spine.tsx';
import { idleSentence } from './idleSentence.ts';
import { NotHere } from './NotHere.tsx';
import { unknownAddress } from './unknownAddress.ts';
import { stationFigures } from './stationFigures.ts';
import { Stations } from './Stations.tsx';

/** On so few pages the overrides are counted before anybody looks at them. */
const fewPages = 60;

const stations = [
  SurveyStation,
  GatherStation,
  SheetsStation,
  LinksStation,
  PrecedenceStation,
  ProofStation,
  HandoffStation,
];

const workLook = 'relative min-h-0 min-w-0 overflow-auto bg-panel focus-visible:shadow-none';

/** One site: head, thread, pages, the station's work, the draft bar. */
export function SiteFrame() {
  const view = useSiteView();
  const navigate = useNavigate();
  const { data: sites = [] } = useSitesQuery();
  const inHand = useDraft(view.siteId);
  const { draft, proof, progress } = inHand;
  const [history, setHistory] = useState(false);
  const [textsOf, setTextsOf] = useState<number | undefined>(undefined);
  const [finding, setFinding] = useState(false);
  const [helping, setHelping] = useState(false);
  const [texts, setTexts] = useState<string | undefined>(undefined);
  const [showing, setShowing] = useState(false);
  const filter = useRef<HTMLInputElement>(null);
  const isCounted = view.station === 'precedence' || (view.survey !== undefined && view.pages.length <= fewPages);
  const overrides = useOverridesCount(view.siteId, view.site?.revision, isCounted);
  const unfinished = useUnfinishedSheets(view.siteId);
  const mayOnlyLook = useMayOnlyLook(view.siteId);
  const figures = stationFigures(view.survey, draft, proof, view.site, overrides);

  // once the first is shown the others come as well: a key is for the station it leads to
  useEffect(() => {
    return whenIdle(() => stations.forEach((station) => station.preload()));
  }, []);

  useKeys({
    ...Object.fromEntries(stationNames.map((name, i) => [String(i + 1), () => view.go(name)])),
    '/': () => filter.current?.focus(),
    '?': () => setHelping(true),
    'ctrl+k': () => setFinding(true),
    'ctrl+z': (event) => (event.shiftKey ? inHand.again?.() : inHand.undo()),
    'ctrl+y': () => inHand.again?.(),
  });

  const unknown = unknownAddress(view, draft ? [...draft.sheets, ...draft.changes].map(({ path }) => path) : []);
  const opensPages = view.station === 'proof' || (view.station === 'survey' && view.opened !== undefined);
  // at Proof the pages say how the two states shown there compare
  const { proof: compared } = useComparison(view.siteId, inHand, view.station === 'proof');
  const verdicts = useMemo(() => new Map(compared?.pages.map((page) => [page.path, page])), [compared]);
  const rail = (
    <PagesRail
      pages={view.pages}
      survey={view.survey}
      chosen={new Set(opensPages ? (view.opened === undefined ? [] : [view.opened]) : view.scoped ? view.scope : [])}
      onChoose={(pages) => (opensPages ? view.open(pages.at(-1)) : view.setScope(pages))}
      filterRef={filter}
      verdictOf={view.station === 'proof' && compared ? (path) => verdictMark(verdicts.get(path)) : undefined}
      legend={
        view.station === 'proof' && compared ? (
          <RailLegend label="Verdicts, by mark">
            <span>= looks the same</span>
            <span />
            <span>≠ how many elements differ</span>
            <span />
            <span>? cannot be told</span>
            {compared.pages.some(({ verdict }) => verdict === 'intended') && (
              <>
                <span />
                <span>≈ as you chose</span>
              </>
            )}
          </RailLegend>
        ) : undefined
      }
    />
  );
  const full = view.station === 'hand-off' || view.station === 'links';
  // one page is looked at: the rail folds to its spine
  const spined = view.station === 'sheets' || (view.station === 'precedence' && view.way === undefined);
  return (
    <div className={frameLook}>
      <HeadBar
        site={view.site}
        sites={sites}
        onFind={() => setFinding(true)}
        onHelp={() => setHelping(true)}
        onSite={(id) => void navigate(id === '' ? '/' : `/sites/${id}/survey`)}
        onHistory={() => setHistory(true)}
      />
      <Stations siteId={view.siteId} here={view.station} figures={figures} />
      <main
        className={`grid min-h-0 max-phone:grid-cols-[minmax(0,1fr)] ${full ? 'grid-cols-[minmax(0,1fr)]' : spined ? 'grid-cols-[var(--w-spine)_minmax(0,1fr)]' : 'grid-cols-[var(--w-rail)_minmax(0,1fr)]'}`}
      >
        {spined ? <Spine pages={view.pages} survey={view.survey} /> : !full && rail}
        <div className={workLook} data-work tabIndex={-1}>
          {view.failed !== undefined ? (
            <Failed error={view.failed} />
          ) : view.survey && view.site && draft ? (
            unknown ? (
              <NotHere {...unknown} />
            ) : (
              <Guarded at={`${view.siteId} ${view.station} ${view.opened ?? ''}`}>
                <Suspense fallback={<Loading />}>
                  <Work view={view} inHand={inHand} onBringIn={() => setShowing(true)} />
                </Suspense>
              </Guarded>
            )
          ) : (
            <Loading />
          )}
        </div>
      </main>
      <DraftBar
        draft={draft}
        proof={proof}
        progress={progress?.status === 'running' ? progress : undefined}
        failed={progress?.status === 'failed' ? progress.detail : undefined}
        revision={view.site?.revision ?? draft?.base ?? 1}
        idle={mayOnlyLook ? 'You may look at this site, not change it.' : idleSentence(view)}
        unfinished={unfinished}
        onBroughtIn={() => setShowing(true)}
        onTexts={(path) => setTexts(path ?? '')}
        problem={inHand.problem}
        busy={inHand.changing}
        onSave={inHand.save}
        onDiscard={inHand.discard}
        onRedo={inHand.redo}
        onLeave={inHand.leave}
        onRemove={inHand.undo}
        onAgain={inHand.again}
        onLine={(path, line) => view.openAt('sheets', path, line)}
        onProof={() => view.go('proof', proof?.pages.find((page) => page.verdict !== 'same')?.path)}
      />
      {finding && <SiteFinder view={view} onClose={() => setFinding(false)} onBroughtIn={() => setShowing(true)} />}
      {showing && view.site && <BroughtIn view={view} inHand={inHand} onClose={() => setShowing(false)} />}
      {history && view.site && (
        <HistoryBox
          site={view.site}
          inDraft={draft?.operations.length ?? 0}
          onClose={() => setHistory(false)}
          onTexts={(number) => {
            setHistory(false);
            setTextsOf(number);
          }}
          onCompare={(from, to) => {
            setHistory(false);
            view.goWith('proof', { from: String(from), to: String(to) });
          }}
        />
      )}
      {textsOf !== undefined && (
        <RevisionTexts siteId={view.siteId} from={textsOf - 1} to={textsOf} onClose={() => setTextsOf(undefined)} />
      )}
      {texts !== undefined && draft && draft.operations.length > 0 && (
        <ChangedTexts
          between={{ siteId: view.siteId, from: `r${draft.base}`, to: 'draft', path: texts || undefined }}
          changes={draft.changes}
          onClose={() => setTexts(undefined)}
        />
      )}
      {texts !== undefined && draft?.operations.length === 0 && draft.base > 1 && (
        <RevisionTexts siteId={view.siteId} from={draft.base - 1} to={draft.base} onClose={() => setTexts(undefined)} />
      )}
      <KeysHelp open={helping} onClose={() => setHelping(false)} />
    </div>
  );
}

function Work({
  view,
  inHand,
  onBringIn,
}: {
  readonly view: SiteView;
  readonly inHand: ReturnType<typeof useDraft>;
  readonly onBringIn: () => void;
}) {
  switch (view.station) {
    case 'survey':
      return <SurveyStation view={view} inHand={inHand} />;
    case 'gather':
      return <GatherStation view={view} inHand={inHand} onBringIn={onBringIn} />;
    case 'sheets':
      return <SheetsStation view={view} inHand={inHand} />;
    case 'proof':
      return <ProofStation view={view} inHand={inHand} />;
    case 'hand-off':
      return <HandoffStation view={view} inHand={inHand} />;
    case 'links':
      return <LinksStation view={view} inHand={inHand} />;
    case 'precedence':
      return <PrecedenceStation view={view} inHand={inHand} />;
  }
}

function SiteFinder({
  view,
  onClose,
  onBroughtIn,
}: {
  readonly view: SiteView;
  readonly onClose: () => void;
  readonly onBroughtIn: () => void;
}) {
  const { data: families = [] } = useFamiliesQuery({ id: view.siteId, number: view.site?.revision ?? 1 });
  const things: Findable[] = [
    ...stationNames.map((name, i) => ({
      group: 'Stations',
      label: stationTitle[name],
      hint: String(i + 1),
      run: () => view.go(name),
    })),
    ...(view.scoped ? [{ group: 'To do', label: 'Choose all pages again', run: () => view.setScope([]) }] : []),
    { group: 'To do', label: 'Put files in, or take some out', run: onBroughtIn },
    ...view.pages.map((page) => ({ group: 'Pages', label: page, hint: 'open it', run: () => view.go('survey', page) })),
    ...(view.survey?.sheets ?? []).map((sheet) => ({
      group: 'Sheets',
      label: sheet.path,
      hint: 'open it',
      run: () => view.go('sheets', sheet.path),
    })),
    ...families.map((family) => ({
      group: 'Rules',
      label: family.id,
      hint: `${family.pages.length} pages`,
      run: () => view.go('gather', family.id),
    })),
  ];
  return <Finder open onClose={onClose} things={things} />;
}

const Loading = () => <Waiting>Reading the pages …</Waiting>;

function Failed({ error }: { readonly error: unknown }) {
  return (
    <div className="p-6" role="alert">
      <p className="font-medium text-error">{problemText(error)}</p>
      <p className="mt-3 flex items-center gap-4">
        <Button onClick={() => location.reload()}>Try again</Button>
        <Link className={actLook} to="/">
          To the sites
        </Link>
      </p>
    </div>
  );
}
