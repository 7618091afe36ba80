import { useCallback, useMemo, useRef, useState, type ReactNode } from 'react';
import { noWords, parseSelectorList, type OutlinedRule, type SiteWords } from '@syndeton/core';
import type { FileTextReply, OperationBody } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { count } from '../../ui/format.ts';
import type { DraftInHand } from '../drafts/index.ts';
import type { SiteView } from '../site/index.ts';
import type { Beater } from './beaterWords.ts';
import { SheetEditor, type EditorHandle, type RuleHere } from './editor/SheetEditor.tsx';
import { EffectView, PagesByFolder } from './EffectView.tsx';
import { LivePage } from './LivePage.tsx';
import type { TextLook } from './liveDocument.ts';
import { RuleScore } from './RuleScore.tsx';
import { TypedNotice } from './TypedNotice.tsx';
import { useRuleScoreQuery, useSelectorReachQuery, useSheetReachQuery, useSiteWordsQuery } from './sheetsApi.ts';
import { useEditEffect } from './useEditEffect.ts';
import { usePickedRule } from './usePickedRule.ts';
import { useTyped } from './useTyped.ts';
import { whyNothing } from './whyNothing.ts';
import type { Looked } from './writing/answers.ts';

interface Props {
  readonly view: SiteView;
  readonly inHand: DraftInHand;
  readonly path: string;
  /** Pages that link it. */
  readonly pages: readonly string[];
  readonly file: FileTextReply;
  readonly onTyped: () => void;
  /** What the text shows by itself, and rules that no page has an element for. */
  readonly onFound: (found: { readonly wrong: number; readonly idle: number }) => void;
}

/** The text of one sheet, and beside it what the rule at the cursor reaches and what an edit does. */
export function OneSheet({ view, inHand, path, pages, file, onTyped, onFound }: Props) {
  const draft = inHand.draft!;
  const at = { id: view.siteId, number: draft.base };
  const typed = useTyped(view.siteId, path, file);
  const handle = useRef<EditorHandle | undefined>(undefined);
  const [looked, setLooked] = useState<{ readonly now: Looked; readonly before: readonly OutlinedRule[] } | undefined>(undefined); // prettier-ignore
  const [here, setHere] = useState<RuleHere | undefined>(undefined);
  const [looks, setLooks] = useState<{ readonly now: TextLook; readonly then: TextLook } | undefined>(undefined);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const [generation, setGeneration] = useState(0);
  const [page, setPage] = useState<string | undefined>(undefined);
  const way = view.way === 'page' ? 'page' : 'words';

  const { data: reach } = useSheetReachQuery({ ...at, path });
  const { data: words } = useSiteWordsQuery(at);
  const { data: score } = useRuleScoreQuery(
    { ...at, path, start: here?.start ?? 0 },
    { skip: here?.start === undefined },
  );
  const selector =
    here && !here.rule.isNested && parseSelectorList(here.rule.selector) ? here.rule.selector : undefined;
  const { currentData: reaches } = useSelectorReachQuery({ ...at, selector: selector ?? '', sheet: path }, { skip: selector === undefined }); // prettier-ignore
  const reachByStart = useMemo(() => new Map(reach?.rules.map((rule) => [rule.start, rule])), [reach]);

  const text = typed.text;
  const edit = useMemo<OperationBody | undefined>(
    () => (typed.changed ? { kind: 'edit-sheet', path, hash: file.hash, text } : undefined),
    [typed.changed, path, file.hash, text],
  );
  const effect = useEditEffect(view.siteId, draft, typed.overtaken ? undefined : edit);
  const changed = useMemo(() => changedProperties(here, looked), [here, looked]);

  const lineUp = async (): Promise<void> => {
    if (!edit || edit.kind !== 'edit-sheet') return;
    setProblem(undefined);
    try {
      await inHand.change((operations) => {
        const last = operations.at(-1);
        // an edit of the same sheet right before becomes one with this one
        return last?.kind === 'edit-sheet' && last.path === path
          ? [...operations.slice(0, -1), { ...last, text }]
          : [...operations, edit];
      });
      typed.linedUp(text);
    } catch (error) {
      setProblem(problemText(error));
    }
  };
  const putBack = (): void => {
    typed.drop();
    onTyped();
    setGeneration((n) => n + 1);
  };
  const onLooks = useCallback((next: typeof looks) => setLooks((old) => (same(old, next) ? old : next)), []);
  const picked = usePickedRule(at, path, handle, (sheet, line) => view.openAt('sheets', sheet, line));
  const onBeater = (beater: Beater): void => {
    if (beater.sheet === path && beater.start !== null) handle.current?.goToRule(beater.start);
    else if (beater.sheet !== null) view.open(beater.sheet);
    else view.go('precedence', beater.pages[0]);
  };
  const reachedPages = reaches?.pages ?? [];
  const sample = effect?.reply?.changes[0]?.sample;
  const live = page ?? sample?.page ?? reachedPages[0]?.path ?? pages[0];
  const first =
    score && changed.length > 0
      ? firstAnswer(score.declarations.filter(({ property }) => changed.includes(property)))
      : undefined;
  return (
    <>
      <div className="ed">
        <div className="edh note">
          <span>line</span>
          <span>rule</span>
          <span className="ml-auto">reach: pages of {reach?.pages.length ?? pages.length}, elements</span>
        </div>
        <TypedNotice typed={typed} path={path} onDrop={putBack} />
        <div className="min-h-0">
          <SheetEditor
            key={generation}
            base={file.text ?? ''}
            typed={text}
            label={`Text of ${path}`}
            inQuirks={false}
            words={(words as SiteWords | undefined) ?? noWords}
            reach={reachByStart}
            line={view.line}
            handle={handle}
            onChange={(next) => {
              typed.type(next);
              onTyped();
            }}
            onLooked={(now, before) => {
              setLooked({ now, before });
              const wrong = now.findings.filter(({ severity }) => severity !== 'note').length;
              onFound({ wrong, idle: reach?.rules.filter(({ elements }) => elements === 0).length ?? 0 });
            }}
            onRule={setHere}
            onLineUp={() => void lineUp()}
          />
        </div>
      </div>
      <aside className="reach" aria-label="What it reaches and does">
        <p className="rways">
          <Way name="words" now={way} label="Reach and effect" onWay={setWay} />
          <Way name="page" now={way} label="On a page" onWay={setWay} />
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
            pages={reachedPages.map((one) => one.path)}
            hidden={way !== 'page'}
            onPage={setPage}
            onPick={(element) => picked.pick(live, element)}
            onLooks={onLooks}
          />
        )}
        {picked.said !== undefined && way === 'page' && (
          <p className="note" role="status">
            {picked.said}
          </p>
        )}
        {way === 'words' && (
          <>
            {here ? (
              <>
                <div className="ttl">
                  <span className="m">{here.rule.selector}</span>
                  <span className="text-ink-2">
                    {reaches ? (
                      <>
                        {reaches.elements === 0 ? 'matches nothing on its pages' : 'matches '}
                        {reaches.elements > 0 && (
                          <>
                            <b>{count(reaches.elements, 'element')}</b> on <b>{count(reachedPages.length, 'page')}</b>
                          </>
                        )}
                      </>
                    ) : here.rule.isNested ? (
                      'is nested'
                    ) : null}
                  </span>
                  {score?.specificity !== null && score !== undefined && (
                    <span className="note m2">{score.specificity}</span>
                  )}
                </div>
                {score && here.start !== undefined && (
                  <RuleScore
                    score={score}
                    pages={reach?.pages ?? pages}
                    changed={changed}
                    onBeater={onBeater}
                    actOf={(beater) => actOn(beater, view)}
                  />
                )}
              </>
            ) : (
              <p className="py-3 text-table text-ink-2">Put the cursor into a rule to see what it reaches and wins.</p>
            )}
            {typed.changed && !typed.overtaken && (
              <EffectView
                effect={effect?.reply}
                problem={problem ?? effect?.problem}
                first={first && { ...first, properties: changed }}
                nothing={here ? whyNothing(here.rule, changed, { score, elements: reaches?.elements, findings: looked?.now.findings ?? [] }) : 'Nothing that a page shows is changed.'} // prettier-ignore
                looks={looks}
                busy={inHand.changing}
                onLineUp={() => void lineUp()}
                onPutBack={putBack}
                onPage={(path) => {
                  setPage(path);
                  setWay('page');
                }}
              />
            )}
            {!typed.changed && reachedPages.length > 0 && (
              <div className="eff">
                <PagesByFolder
                  pages={reachedPages}
                  onPage={(path) => {
                    setPage(path);
                    setWay('page');
                  }}
                />
              </div>
            )}
          </>
        )}
      </aside>
    </>
  );

  function setWay(next: 'words' | 'page'): void {
    view.setWay(next === 'words' ? undefined : next);
  }
}

function Way({
  name,
  now,
  label,
  onWay,
}: {
  readonly name: 'words' | 'page';
  readonly now: 'words' | 'page';
  readonly label: string;
  readonly onWay: (way: 'words' | 'page') => void;
}): ReactNode {
  return (
    <button type="button" className="rway" aria-pressed={name === now} onClick={() => onWay(name)}>
      {label}
    </button>
  );
}

/** Properties of the rule at the cursor that say something else than in the draft. */
function changedProperties(
  here: RuleHere | undefined,
  looked: { readonly before: readonly OutlinedRule[] } | undefined,
): readonly string[] {
  if (!here || here.start === undefined) return [];
  const before = looked?.before.find(({ start, selector }) => start === here.start && selector === here.rule.selector);
  if (!before) return [];
  const said = (rule: OutlinedRule): Map<string, string> =>
    new Map(rule.declarations.map(({ property, value, important }) => [property, `${value}${important ? '!' : ''}`]));
  const [old, now] = [said(before), said(here.rule)];
  return [...new Set([...old.keys(), ...now.keys()])].filter((property) => old.get(property) !== now.get(property));
}

/** Elements on which what changes has won so far: they change surely. */
function firstAnswer(
  declarations: readonly {
    readonly wins: number;
    readonly pages: readonly { readonly path: string; readonly wins: number }[];
  }[],
): { readonly elements: number; readonly pages: number } {
  const pages = new Set(declarations.flatMap((one) => one.pages.flatMap(({ path, wins }) => (wins > 0 ? [path] : []))));
  return { elements: Math.max(0, ...declarations.map(({ wins }) => wins)), pages: pages.size };
}

/** What the author can do about it where pages say it again. */
function actOn(beater: Beater, view: SiteView): { readonly label: string; readonly does: () => void } | undefined {
  if (beater.kind === 'embedded') return { label: 'Gather it', does: () => view.go('gather') };
  return undefined;
}

function same(a: unknown, b: unknown): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}
