import { useCallback, useMemo, useState, type ReactNode, type RefObject } from 'react';
import { dropFromRule, parseSheet, setInRule, type OutlinedRule, type Said } from '@syndeton/core';
import type { OperationBody, SelectorReachReply, SheetReachReply, SiteWordsReply } from '@syndeton/contract';

import { effectLook } from '../../ui/looks.ts';
import { count } from '../../ui/format.ts';
import type { DraftInHand } from '../drafts/index.ts';
import type { SiteView } from '../site/index.ts';
import type { Beater } from './beaterWords.ts';
import { changedProperties, firstAnswer } from './editInHand.ts';
import type { EditorHandle, RuleHere } from './editor/SheetEditor.tsx';
import { ClassForPicked, toggled, type Picked } from './ClassForPicked.tsx';
import { EffectView, PagesByFolder } from './EffectView.tsx';
import { LivePage } from './LivePage.tsx';
import type { TextLook } from './liveDocument.ts';
import { NewRule } from './NewRule.tsx';
import { RuleForm } from './RuleForm.tsx';
import { RuleScore, type BeaterAct } from './RuleScore.tsx';
import { useRuleScoreQuery } from './sheetsApi.ts';
import { usePickedRule } from './usePickedRule.ts';
import type { SheetEdit } from './useSheetEdit.ts';
import { whyNothing } from './whyNothing.ts';
import type { Looked } from './writing/answers.ts';

type Way = 'words' | 'page' | 'form';

interface Props {
  readonly view: SiteView;
  readonly inHand: DraftInHand;
  readonly path: string;
  /** Pages that link the sheet. */
  readonly pages: readonly string[];
  readonly edit: SheetEdit;
  readonly here: RuleHere | undefined;
  readonly looked: { readonly now: Looked; readonly before: readonly OutlinedRule[] } | undefined;
  readonly selector: string | undefined;
  readonly reach: SheetReachReply | undefined;
  readonly reaches: SelectorReachReply | undefined;
  readonly words: SiteWordsReply | undefined;
  readonly handle: RefObject<EditorHandle | undefined>;
  readonly acts: ReactNode;
  readonly onPutBack: () => void;
  readonly onAdd: (title: string, operations: readonly OperationBody[]) => void;
  readonly onClass: (name: string, take: boolean, elements: readonly Picked[]) => void;
}

/** Beside the text: what the rule at the cursor reaches and wins, what an edit does, a page with it, and the rule as a form. */
export function RulePanel(props: Props) {
  const { view, inHand, path, pages, edit, here, looked, selector, reach, reaches, words, handle, acts } = props;
  const draft = inHand.draft!;
  const at = { id: view.siteId, number: draft.base };
  const { typed, effect } = edit;
  const way: Way = view.way === 'page' || view.way === 'form' ? view.way : 'words';
  const [looks, setLooks] = useState<{ readonly now: TextLook; readonly then: TextLook } | undefined>(undefined);
  const [page, setPage] = useState<string | undefined>(undefined);
  const onLooks = useCallback((next: typeof looks) => setLooks((old) => (isSame(old, next) ? old : next)), []);
  const { data: score } = useRuleScoreQuery(
    { ...at, path, start: here?.start ?? 0 },
    { skip: here?.start === undefined },
  );
  const changed = useMemo(() => changedProperties(here, looked?.before), [here, looked]);
  const [chosen, setChosen] = useState<readonly Picked[] | undefined>(undefined);
  const picked = usePickedRule(at, path, handle, (sheet, line) => view.openAt('sheets', sheet, line));

  const setWay = (next: Way): void => view.setWay(next === 'words' ? undefined : next);
  const toPage = (next: string): void => {
    setPage(next);
    setWay('page');
  };
  const onBeater = (beater: Beater): void => {
    if (beater.sheet === path && beater.start !== null) handle.current?.goToRule(beater.start);
    else if (beater.sheet !== null) view.open(beater.sheet);
    else view.go('precedence', beater.pages[0]);
  };
  const reachedPages = reaches?.pages ?? [];
  const sample = typed.changed ? effect?.reply?.changes[0]?.sample : undefined;
  const differing = typed.changed ? (effect?.reply?.differing ?? []) : [];
  // without a rule at the cursor: the pages that change, or all
  const walked =
    selector !== undefined ? reachedPages.map((one) => one.path) : differing.length > 0 ? differing : pages;
  const live = page ?? sample?.page ?? reachedPages[0]?.path ?? pages[0];
  return (
    <aside
      className="relative min-h-0 min-w-0 overflow-auto border-l border-line-2 pr-5 pb-5 pl-6 max-phone:border-l-0 max-phone:px-4"
      data-rule-panel
      aria-label="What it reaches and does"
    >
      <p className="flex gap-4 h-7.5 items-center max-[1200px]:gap-3">
        {(['words', 'page', 'form'] as const).map((name) => (
          <button
            key={name}
            type="button"
            className="text-ink-3 whitespace-nowrap aria-pressed:font-medium aria-pressed:text-ink aria-pressed:shadow-under"
            aria-pressed={name === way}
            onClick={() => setWay(name)}
          >
            {wayWords[name]}
          </button>
        ))}
        <span className="ml-auto">{here && acts}</span>
      </p>
      {live !== undefined && (
        <LivePage
          siteId={view.siteId}
          page={live}
          version={draft.version}
          sheet={path}
          rules={typed.changed ? looked?.now.top : undefined}
          selector={selector}
          sample={sample?.page === live ? sample.element : undefined}
          pages={walked}
          hidden={way !== 'page'}
          onPage={setPage}
          chosen={(chosen ?? []).filter((one) => one.page === live).map((one) => one.element)}
          onPick={(element) =>
            chosen ? setChosen(toggled(chosen, { page: live, element })) : picked.pick(live, element)
          }
          onLooks={onLooks}
        />
      )}
      {way === 'page' && (
        <ClassForPicked
          key={draft.version}
          chosen={chosen}
          names={words?.classes.map(({ name }) => name) ?? []}
          onPicking={(on) => setChosen(on ? [] : undefined)}
          onClass={(name, take) => props.onClass(name, take, chosen ?? [])}
        />
      )}
      {way === 'page' && picked.said !== undefined && (
        <p className="text-note text-ink-3" role="status">
          {picked.said}
        </p>
      )}
      {way !== 'page' && here && (
        <Title rule={here.rule} reaches={reaches} specificity={score?.specificity ?? undefined} />
      )}
      {way === 'form' && (
        <>
          {here && (
            <RuleForm
              rule={here.rule}
              words={words}
              onSet={(said) => editRule(handle, here.rule, { set: said })}
              onDrop={(property) => editRule(handle, here.rule, { drop: property })}
            />
          )}
          <NewRule at={at} path={path} words={words} onWrite={(written) => handle.current?.writeRule(written)} />
        </>
      )}
      {way === 'words' && !here && (
        <p className="py-3 text-table text-ink-2">Put the cursor into a rule to see what it reaches and wins.</p>
      )}
      {way === 'words' && here?.start !== undefined && score && (
        <RuleScore
          score={score}
          pages={reach?.pages ?? pages}
          changed={changed}
          onBeater={onBeater}
          actsOf={(beater) => actsOn(beater, view, props.onAdd)}
        />
      )}
      {way !== 'page' && typed.changed && !typed.overtaken && (
        <EffectView
          effect={effect?.reply}
          problem={edit.problem ?? effect?.problem}
          first={firstAnswer(score, changed)}
          nothing={
            here
              ? whyNothing(here.rule, changed, {
                  score,
                  elements: reaches?.elements,
                  findings: looked?.now.findings ?? [],
                })
              : 'Nothing that a page shows is changed.'
          }
          looks={looks}
          busy={inHand.changing}
          onAdd={edit.addToDraft}
          onPutBack={props.onPutBack}
          onPage={toPage}
        />
      )}
      {way === 'words' && !typed.changed && reachedPages.length > 0 && (
        <div className={effectLook}>
          <PagesByFolder pages={reachedPages} onPage={toPage} />
        </div>
      )}
    </aside>
  );
}

const wayWords: Readonly<Record<Way, string>> = { words: 'Reach', page: 'On a page', form: 'As a form' };

function Title({
  rule,
  reaches,
  specificity,
}: {
  readonly rule: OutlinedRule;
  readonly reaches: SelectorReachReply | undefined;
  readonly specificity: string | undefined;
}) {
  return (
    <div data-rule-name className="flex flex-wrap items-baseline gap-x-2.5 pt-2 pb-1.5 leading-5.5 [&_b]:text-ink">
      <span className="m text-[15px] font-bold wrap-anywhere">{rule.selector}</span>
      <span className="text-ink-2">
        {rule.isNested ? (
          'stands in another rule'
        ) : reaches?.elements === 0 ? (
          'matches nothing on its pages'
        ) : reaches ? (
          <>
            matches <b>{count(reaches.elements, 'element')}</b> on <b>{count(reaches.pages.length, 'page')}</b>
          </>
        ) : null}
      </span>
      {specificity !== undefined && <span className="text-note text-ink-3 ml-auto">{specificity}</span>}
    </div>
  );
}

/** The same edit as one typed by hand. */
function editRule(
  handle: RefObject<EditorHandle | undefined>,
  { start }: OutlinedRule,
  what: { readonly set: Said } | { readonly drop: string },
): void {
  const text = handle.current?.text();
  const rule = text === undefined ? undefined : styleRuleAt(text, start);
  if (text === undefined || !rule) return;
  const said = 'drop' in what ? rule.declarations.findLast(({ property }) => property === what.drop) : undefined;
  const edit = 'set' in what ? setInRule(text, rule, what.set) : said && dropFromRule(text, said);
  if (edit) handle.current!.replace(edit.span.start, edit.span.end, edit.text);
}

function styleRuleAt(text: string, start: number) {
  const look = (rules: ReturnType<typeof parseSheet>['rules']): ReturnType<typeof pick> => {
    for (const rule of rules) {
      const found =
        rule.kind === 'style'
          ? (pick(rule) ?? look(rule.nested))
          : rule.kind === 'group'
            ? look(rule.rules)
            : undefined;
      if (found) return found;
    }
    return undefined;
  };
  const pick = (rule: Extract<ReturnType<typeof parseSheet>['rules'][number], { kind: 'style' }>) =>
    rule.span.start === start ? rule : undefined;
  return look(parseSheet(text).rules);
}

/** What the author can do about it where pages say it again. */
function actsOn(
  { kind, selector, properties, value, pages }: Beater,
  view: SiteView,
  onAdd: Props['onAdd'],
): readonly BeaterAct[] {
  if (kind !== 'embedded' && kind !== 'attribute') return [];
  const gather = { label: 'Gather it', does: () => view.go('gather') };
  const [property] = properties;
  if (property === undefined || properties.length > 1) return [gather];
  const said = kind === 'attribute' ? { where: 'attribute' as const } : { where: 'block' as const, selector };
  const drop = { kind: 'drop-declaration' as const, ...said, property, value, pages: [...pages] };
  return [gather, { label: 'Drop it there', does: () => onAdd(`Drop ${property} on these pages?`, [drop]) }];
}

const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
