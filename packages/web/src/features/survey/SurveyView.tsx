import { useMemo } from 'react';
import type { FindingReply, SurveyReply } from '@syndeton/contract';
import { sayLook, sideHeadLook } from '../../ui/looks.ts';
import { Button } from '../../ui/Button.tsx';
import { Act } from '../../ui/Act.tsx';
import { count, kB } from '../../ui/format.ts';
import { Problem } from '../../ui/Said.tsx';
import type { Sorting } from './barsFor.ts';
import { FindingsList } from './FindingsList.tsx';
import { pathsByName } from './FindingSentence.tsx';
import { presentationalBytes } from '../site/index.ts';
import { RepeatedBlocks } from './RepeatedBlocks.tsx';
import { SourcesChart } from './SourcesChart.tsx';

interface Props {
  readonly pages: readonly SurveyReply['pages'][number][];
  readonly allPages: readonly string[];
  readonly sheets: readonly string[];
  readonly scoped: boolean;
  readonly repeatedBytes: number;
  readonly blocks: readonly SurveyReply['repeatedBlocks'][number][];
  readonly findings: readonly FindingReply[];
  /** Whether a validator was asked about the pages' markup. */
  readonly markup: 'known' | 'asked' | 'unasked';
  readonly onMarkup: () => void;
  readonly sorting: Sorting;
  readonly busy: boolean;
  readonly problem: string | undefined;
  readonly onAll: () => void;
  readonly onChoose: (pages: readonly string[]) => void;
  readonly onSort: (sorting: Sorting) => void;
  readonly onPath: (path: string) => void;
  readonly onAct: (finding: FindingReply) => void;
  /** Sheets that are said to be on no server. */
  readonly nowhere: readonly string[];
  readonly onNowhere: (path: string) => void;
  readonly onPropose: () => void;
}

/** Where the styling sits: one sentence, the chart of shared against still in the page, what is wrong, what repeats. */
export function SurveyView(props: Props) {
  const { pages, allPages, sheets, scoped, repeatedBytes, blocks } = props;
  const rules = pages.reduce((sum, page) => sum + page.embeddedRules, 0);
  const attributes = pages.reduce((sum, page) => sum + page.styleAttributes, 0);
  const presentational = presentationalBytes(pages);
  const pathOfName = useMemo(() => pathsByName(allPages, sheets), [allPages, sheets]);
  const where = scoped
    ? `${pages.length.toLocaleString('en')} of ${count(allPages.length, 'page')}`
    : count(pages.length, 'page');
  const left = rules + attributes > 0;
  return (
    <div className="px-6 pb-6">
      <div className="flex items-start gap-6 pt-4 pb-2">
        <h1 className={sayLook}>
          {left ? (
            <>
              {rules > 0 && <b>{count(rules, 'rule')}</b>}
              {rules > 0 && attributes > 0 && ' and '}
              {attributes > 0 && <b>{count(attributes, 'style attribute')}</b>} still{' '}
              {rules + attributes === 1 ? 'sits' : 'sit'} inside <b>{where}</b>
              {!scoped && repeatedBytes > 0 ? (
                <>
                  ;
                  <br />
                  <b>{kB(repeatedBytes)}</b> of it is the same text repeated.
                </>
              ) : (
                '.'
              )}
            </>
          ) : (
            <>
              {presentational > 0 ? 'No rule and no style attribute' : 'Nothing'} is left inside <b>{where}</b>
              {presentational > 0 ? (
                <>
                  ; presentational attributes say <b>{kB(presentational)}</b>.
                </>
              ) : sheets.length === 0 ? (
                ', and there is no sheet.'
              ) : (
                `: all styling comes from ${count(sheets.length, 'sheet')}.`
              )}
            </>
          )}
        </h1>
        <div className="ml-auto flex-none text-right">
          {(left || presentational > 0) && (
            <Button next onClick={props.onPropose}>
              Propose a plan <kbd>P</kbd>
            </Button>
          )}
          <p className="text-note text-ink-3 mt-1">
            {scoped ? (
              <>
                {pages.length === 1 && (
                  <Act className="mr-4" onClick={() => props.onPath(pages[0]!.path)}>
                    Open the page
                  </Act>
                )}
                <Act onClick={props.onAll}>Look at all {allPages.length.toLocaleString('en')} pages</Act>
              </>
            ) : (
              left && 'for all of it, with no visible change'
            )}
          </p>
        </div>
      </div>
      <div className="grid grid-cols-1 gap-y-6 min-[1000px]:grid-cols-[minmax(0,594fr)_minmax(320px,446fr)]">
        <section aria-label="Bytes by source" className="min-[1000px]:pr-6">
          <SourcesChart pages={pages} sorting={props.sorting} onSort={props.onSort} onChoose={props.onChoose} />
        </section>
        <section
          aria-label="Findings"
          className="min-w-0 min-[1000px]:border-l min-[1000px]:border-line min-[1000px]:pl-6"
        >
          {props.problem !== undefined && <Problem className="pb-2">{props.problem}</Problem>}
          <FindingsList
            findings={props.findings}
            pathOfName={pathOfName}
            busy={props.busy}
            onPath={props.onPath}
            onAct={props.onAct}
            nowhere={props.nowhere}
            onNowhere={props.onNowhere}
          />
          {props.markup === 'asked' && (
            <p className="text-note text-ink-3" role="status">
              A validator reads the pages’ markup …
            </p>
          )}
          {props.markup === 'unasked' && (
            <Act onClick={props.onMarkup}>
              Ask a validator about the markup of {allPages.length.toLocaleString('en')} pages
            </Act>
          )}
          <h2 className={sideHeadLook}>
            Repeated blocks<span>{blocks.length}</span>
          </h2>
          {blocks.length === 0 ? (
            <p className="text-note text-ink-3">No block stands on two of these pages.</p>
          ) : (
            <RepeatedBlocks blocks={blocks} allPages={allPages} />
          )}
        </section>
      </div>
    </div>
  );
}
