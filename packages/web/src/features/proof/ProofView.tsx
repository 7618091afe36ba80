import type { ProofReply } from '@syndeton/contract';
import { describeTakenAsNothing } from '@syndeton/core';
import { useMemo } from 'react';
import { sayLook } from '../../ui/looks.ts';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { count, pageName } from '../../ui/format.ts';
import { Problem } from '../../ui/Said.tsx';
import { CausesList } from './CausesList.tsx';
import { DoubtsList } from './DoubtsList.tsx';
import { MeasureSection } from './measure/MeasureSection.tsx';
import { PicturesRow } from './pictures/PicturesRow.tsx';
import { saveDisagreement } from './measure/saveDisagreement.ts';
import { useMeasuring } from './measure/useMeasuring.ts';
import { SlidingEdge } from './SlidingEdge.tsx';
import { CompareOther, StatesChosen, type Chooser } from './StatesChosen.tsx';
import type { States } from './useStates.ts';

interface Props {
  readonly siteId: string;
  /** Undefined where the site has one state only. */
  readonly states: States | undefined;
  readonly chooser: Chooser;
  readonly proof: ProofReply | undefined;
  /** Why they could not be compared. */
  readonly failed: string | undefined;
  readonly seconds: number | undefined;
  readonly path: string | undefined;
  readonly nextPage: string | undefined;
  /** Sheets taken as missing on the server too. */
  readonly missing: readonly string[];
  /** Grows with the draft. */
  readonly version: number;
  readonly onOpen: (page: string) => void;
  readonly onGather: () => void;
  /** Undefined where nothing can be done about a difference: two saved states. */
  readonly onKeep: ((page: string, cause: ProofReply['pages'][number]['causes'][number]) => void) | undefined;
  readonly busy: boolean;
  /** What was refused. */
  readonly problem: string | undefined;
}

/** The verdict in one sentence, a page before and after under one sliding edge, and the differences by cause. */
export function ProofView({
  siteId,
  states,
  chooser,
  proof,
  failed,
  seconds,
  path,
  nextPage,
  missing,
  version,
  onOpen,
  onGather,
  onKeep,
  busy,
  problem,
}: Props) {
  if (!states || path === undefined)
    return (
      <div className="p-6">
        <h1 className={sayLook}>The draft is empty and nothing was saved yet, so there is nothing to compare.</h1>
        <p className="mt-4 flex items-center gap-4">
          <Button next onClick={onGather}>
            Gather the rules
          </Button>
          <CompareOther chooser={chooser} />
        </p>
      </div>
    );
  const page = proof?.pages.find((one) => one.path === path);
  const shownKey = `${path} ${states.other ?? ''} ${states.from} ${states.to}`;
  const shown = {
    page: path,
    before: `/preview/${states.other ?? siteId}/r${states.from}/${encode(path)}`,
    after: `/preview/${siteId}/${states.to === 'draft' ? 'draft' : `r${states.to}`}/${encode(path)}`,
    beforeName: states.other === undefined ? `r${states.from}` : `the other site, r${states.from}`,
    afterName: states.to === 'draft' ? 'the draft' : `r${states.to}`,
  };
  return (
    <div className="grid h-full grid-rows-[auto_minmax(0,1fr)] min-[900px]:grid-rows-[66px_minmax(0,1fr)] min-[900px]:grid-cols-[minmax(0,546fr)_minmax(0,500fr)]">
      <div className="flex items-center border-b border-line px-6 min-[900px]:col-span-2">
        <div>
          <h1 className={sayLook}>
            {failed !== undefined ? (
              <span className="font-medium text-error">{failed}</span>
            ) : proof ? (
              <Sentence proof={proof} />
            ) : (
              'Proving every page …'
            )}
          </h1>
          <p className="text-note text-ink-3">
            <StatesChosen states={states} chooser={chooser} />, at every width, in every medium and state
            {proof ? `; ${proof.elements.toLocaleString('en')} elements on the pages the change can reach` : ''}
            {seconds === undefined ? '' : `, ${seconds.toFixed(1)} s`}. Taken as given: scripts and sheets that are not
            in the site change nothing, and pages are compared as they are once loaded
            {missing.length > 0 ? `; ${describeTakenAsNothing(missing)}` : ''}.
          </p>
        </div>
      </div>
      <SlidingEdge key={shownKey} {...shown} causes={page?.causes ?? []} />
      <section className="min-w-0 overflow-auto pr-5 pb-5 pl-5.5" aria-label="Differences">
        <div className="flex min-h-10.5 items-baseline gap-2 border-b border-line-2 leading-10.5">
          <span className="m text-[15px] font-bold">{pageName(path)}</span>
          <span className="text-ink-2">{page ? pageWords(page) : '…'}</span>
        </div>
        {page?.notes.map((note) => (
          <p key={note} className="border-b border-line py-3 text-table">
            {note}
          </p>
        ))}
        {page && <CausesList causes={page.causes} busy={busy} onKeep={onKeep && ((cause) => onKeep(path, cause))} />}
        {problem !== undefined && <Problem className="py-3">{problem}</Problem>}
        {page && page.doubts.length > 0 && <DoubtsList doubts={page.doubts} />}
        {nextPage !== undefined && (
          <p className="pt-3 text-table">
            then <Act onClick={() => onOpen(nextPage)}>{pageName(nextPage)}</Act>
          </p>
        )}
        {proof && states.other === undefined && (
          <Measured siteId={siteId} states={states} version={version} proof={proof} onOpen={onOpen} />
        )}
        {page && !/^(added|removed)$/.test(page.verdict) && <PicturesRow key={shownKey} {...shown} />}
      </section>
    </div>
  );
}

const stateName = (state: number | 'draft'): string => (state === 'draft' ? 'draft' : `r${state}`);

function Measured({
  siteId,
  states,
  version,
  proof,
  onOpen,
}: Pick<Props, 'siteId' | 'version' | 'onOpen'> & { readonly states: States; readonly proof: ProofReply }) {
  const [from, to] = [stateName(states.from), stateName(states.to)];
  const pages = useMemo(
    () => proof.pages.filter(({ verdict }) => !/^(added|removed)$/.test(verdict)).map(({ path }) => path),
    [proof],
  );
  const measuring = useMeasuring({ siteId, from, to, version, pages });
  const save = (page: string): void =>
    void saveDisagreement({
      page,
      roots: [`/preview/${siteId}/${from}/`, `/preview/${siteId}/${to}/`],
      proof: proof.pages.find(({ path }) => path === page),
      measured: measuring.measured.pages[page]!,
    });
  return <MeasureSection key={`${from} ${to}`} measuring={measuring} proof={proof} onPage={onOpen} onSave={save} />;
}

const encode = (path: string): string => path.split('/').map(encodeURIComponent).join('/');

function Sentence({ proof }: { readonly proof: ProofReply }) {
  const unsure = proof.pages.filter((page) => page.verdict === 'unsure').length;
  const same = proof.pages.filter((page) => page.verdict === 'same').length;
  const intended = proof.pages.filter((page) => page.verdict === 'intended').length;
  const differing = proof.pages.length - same - unsure - intended;
  return (
    <>
      <b>{count(same, 'page')}</b> {same === 1 ? 'looks' : 'look'} the same
      {differing > 0 && (
        <>
          ,{' '}
          <b>
            {differing} {differing === 1 ? 'differs' : 'differ'}
          </b>
        </>
      )}
      {intended > 0 && (
        <>
          , <b>{intended}</b> {intended === 1 ? 'looks' : 'look'} as you chose
        </>
      )}
      {unsure > 0 && (
        <>
          , of <b>{unsure}</b> it cannot be told
        </>
      )}
      .{differing + unsure + intended === 0 && ' Nothing differs.'}
    </>
  );
}

function pageWords(page: ProofReply['pages'][number]): string {
  if (page.verdict === 'same')
    return page.elements === 0 ? 'is not reached by the change' : `${count(page.elements, 'element')}, all the same`;
  if (page.verdict === 'unsure') return 'nothing is known to differ, but it cannot be told';
  if (page.verdict === 'added' || page.verdict === 'removed') return `is ${page.verdict}`;
  if (page.verdict === 'intended')
    return `${count(page.differingElements, 'element')} ${page.differingElements === 1 ? 'looks' : 'look'} as you chose`;
  const reasons = page.causes.length + page.notes.length;
  return `${count(page.differingElements, 'element')} ${page.differingElements === 1 ? 'differs' : 'differ'} for ${count(reasons, 'reason')}`;
}
