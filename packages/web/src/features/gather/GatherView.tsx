import type { DraftReply, FamilyReply, ProposalReply } from '@syndeton/contract';
import { sayLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { Button } from '../../ui/Button.tsx';
import { count, kB } from '../../ui/format.ts';
import { attributeKey } from './attributeGroups.ts';
import { AttributesTable } from './AttributesTable.tsx';
import type { Becomes } from './becomes.ts';
import { isDecided } from './decisions.ts';
import { FamiliesTable } from './FamiliesTable.tsx';
import { filters } from './familyFilters.ts';
import type { PlanWords } from './keptPlan.ts';
import { MissingSheets } from './MissingSheets.tsx';
import { PlannedSheet } from './PlannedSheet.tsx';
import type { FamilyFilter } from './gatherSlice.ts';
import { PlanStays } from './PlanStays.tsx';
import { SheetCards } from './SheetCards.tsx';
import { Trades } from './Trades.tsx';

interface Props {
  readonly loading: boolean;
  /** Why the rules could not be grouped. */
  readonly failed: string | undefined;
  readonly families: readonly FamilyReply[];
  readonly shown: readonly FamilyReply[];
  readonly filter: FamilyFilter;
  readonly chosen: ReadonlySet<string>;
  readonly pages: readonly string[];
  readonly scopeSize: number;
  readonly scoped: boolean;
  /** Something is left in the pages that a plan can be about. */
  readonly canPropose: boolean;
  /** Bytes of presentational attributes and elements. */
  readonly presentational: number;
  readonly draft: DraftReply;
  readonly opened: string | undefined;
  readonly proposing: boolean;
  /** How far the plan is that is being made. */
  readonly progress: string;
  readonly notes: readonly string[];
  /** What the plan in the draft says of itself. */
  readonly plan: PlanWords | undefined;
  readonly attributes: Pick<Parameters<typeof AttributesTable>[0], 'groups' | 'state' | 'left' | 'names' | 'goesTo'>;
  readonly onAllPages: () => void;
  readonly onOpen: (family: string | undefined) => void;
  readonly onFilter: (filter: FamilyFilter) => void;
  readonly onChoose: (versions: readonly string[], on: boolean) => void;
  readonly onPropose: () => void;
  readonly onSend: (sheet: string) => void;
  readonly onSheet: (path: string) => void;
  readonly onUndo: () => void;
  readonly onSettle: (family: FamilyReply, version: FamilyReply['versions'][number], becomes: Becomes) => void;
  readonly onSettings: () => void;
  readonly onName: (key: string, name: string) => string | undefined;
  readonly onMarkName: (from: string, to: string) => string | undefined;
  /** The sheet a plan writes, as the draft leaves it. */
  readonly sheetText: string | undefined;
  readonly onTrade: (trade: ProposalReply['trades'][number]) => void;
  readonly correctable: ReadonlySet<string>;
  readonly onNowhere: (paths: readonly string[]) => void;
  readonly onCorrect: (path: string) => void;
  readonly onBringIn: () => void;
}

/** The rules of embedded blocks as families, and the sheets they can go to. */
export function GatherView(props: Props) {
  const { families, shown, filter, chosen, draft, scoped, scopeSize, pages, attributes, plan } = props;
  const lined = draft.operations.length > 0;
  const undecided = lined ? families.filter((family) => !isDecided(draft.operations, family)).length : 0;
  const isSettled =
    families.length === 0 && attributes.groups.length === 0
      ? draft.operations.some((one) => one.kind === 'gather-hints')
      : undecided === 0 && attributes.groups.every((group) => attributes.goesTo(group.key) !== undefined);
  const settled = lined && attributes.state === 'there' && isSettled;
  // whether anything is left is not known before all style attributes are read
  const isKnown = !(lined && undecided === 0 && attributes.state === 'reading');
  const canPropose = !settled && isKnown && props.canPropose;
  const chosenGroups = attributes.groups.filter((group) => chosen.has(attributeKey(group.key))).length;
  const reasons = new Map(plan?.sheets.flatMap(({ path, why }) => (why === undefined ? [] : [[path, why] as const])));
  const drifted = families.filter((family) => family.versions.length > 1).length;
  const written = draft.operations.find((one) => one.kind === 'gather-sheet');
  const chosenFamilies = families.filter((family) =>
    family.versions.some((version) => chosen.has(`${family.id}\n${version.id}`)),
  ).length;
  return (
    <div className="grid h-full max-phone:block max-phone:h-auto grid-cols-[minmax(0,1fr)_var(--w-side)]">
      <div className="min-w-0 overflow-auto pl-5">
        <div className="flex min-h-14 items-center gap-3 py-3 pr-5">
          <h1 className={sayLook}>
            {props.failed !== undefined ? (
              <span className="font-medium text-error">{props.failed}</span>
            ) : props.loading ? (
              'Grouping the rules …'
            ) : families.length === 0 ? (
              <>
                {scoped ? `${scopeSize} of ${pages.length} pages hold` : 'No page holds'}{' '}
                <b>{scoped ? 'no rule' : 'a rule'}</b> in an embedded block
                {props.presentational > 0 ? (
                  <>
                    ; presentational attributes say <b>{kB(props.presentational)}</b>.
                  </>
                ) : (
                  '.'
                )}
              </>
            ) : (
              <>
                <b>{scoped ? `${scopeSize} of ${pages.length} pages` : count(pages.length, 'page')}</b> hold{' '}
                <b>{families.length === 1 ? '1 family' : `${families.length} families`}</b> of rules
                {drifted > 0 ? `; ${drifted} ${drifted === 1 ? 'has' : 'have'} drifted` : ''}
                {lined ? (undecided === 0 ? '; all decided.' : `; ${undecided} still undecided.`) : '.'}
              </>
            )}
          </h1>
          {scoped && <Act onClick={props.onAllPages}>All {pages.length} pages</Act>}
          <span className="ml-auto" />
          {chosen.size === 0 && canPropose && <Act onClick={props.onSettings}>Settings</Act>}
          {chosen.size > 0 ? (
            <Button next onClick={() => props.onSend('')}>
              Send{' '}
              {[
                chosenFamilies > 0 ? count(chosenFamilies, 'rule') : '',
                chosenGroups > 0 ? count(chosenGroups, 'attribute group') : '',
              ]
                .filter((x) => x !== '')
                .join(' and ')}{' '}
              to a sheet <kbd>M</kbd>
            </Button>
          ) : canPropose ? (
            <Button next onClick={props.onPropose} disabled={props.proposing}>
              {props.proposing ? props.progress : lined ? 'Propose the rest' : 'Propose a plan'} <kbd>P</kbd>
            </Button>
          ) : null}
        </div>
        {(families.length > 0 || attributes.groups.length > 0 || written) && (
          <div
            className="flex flex-wrap gap-4.5 pb-1.75 text-table text-ink-2 [&_button]:aria-pressed:font-bold [&_button]:aria-pressed:text-ink [&_button]:aria-pressed:shadow-under [&_span]:ml-0.75 [&_span]:text-ink-3"
            role="group"
            aria-label="Filter families"
          >
            {filters.map(([name, label, test]) => (
              <button key={name} type="button" aria-pressed={filter === name} onClick={() => props.onFilter(name)}>
                {label} <span>{families.filter(test).length}</span>
              </button>
            ))}
            <button type="button" aria-pressed={filter === 'attributes'} onClick={() => props.onFilter('attributes')}>
              Style attributes{' '}
              <span>
                {attributes.state === 'there' ? attributes.groups.length : attributes.state === 'reading' ? '…' : '?'}
              </span>
            </button>
            {written && (
              <button type="button" aria-pressed={filter === 'sheet'} onClick={() => props.onFilter('sheet')}>
                The sheet
              </button>
            )}
          </div>
        )}
        {props.notes.map((note) => (
          <p key={note} className="pb-2 text-table" role="status">
            {note}
          </p>
        ))}
        {filter !== 'sheet' &&
          plan !== undefined &&
          plan.missing.length > 0 &&
          plan.stays.some(({ code }) => code === 'unread-sheet') && <MissingSheets {...props} missing={plan.missing} />}
        {filter !== 'sheet' && plan !== undefined && plan.stays.length > 0 && <PlanStays stays={plan.stays} />}
        {filter === 'sheet' && plan !== undefined && plan.trades.length > 0 && (
          <Trades trades={plan.trades} onTake={props.onTrade} />
        )}
        {filter === 'sheet' && written ? (
          <PlannedSheet
            operation={written}
            text={props.sheetText}
            families={families}
            onMarkName={props.onMarkName}
            onFamily={(id) => {
              props.onFilter('all');
              props.onOpen(id);
            }}
          />
        ) : filter === 'attributes' ? (
          <AttributesTable
            {...attributes}
            pages={pages}
            chosen={new Set(attributes.groups.map((g) => g.key).filter((key) => chosen.has(attributeKey(key))))}
            onChoose={(keys, on) => props.onChoose(keys.map(attributeKey), on)}
            onName={props.onName}
          />
        ) : (
          families.length > 0 && (
            <FamiliesTable
              families={shown}
              pages={pages}
              chosen={chosen}
              opened={props.opened}
              operations={draft.operations}
              onOpen={props.onOpen}
              onChoose={props.onChoose}
              onSettle={props.onSettle}
            />
          )
        )}
      </div>
      <SheetCards
        draft={draft}
        canSend={chosen.size > 0}
        onSend={props.onSend}
        onSheet={props.onSheet}
        onUndo={props.onUndo}
        reasons={reasons}
      />
    </div>
  );
}
