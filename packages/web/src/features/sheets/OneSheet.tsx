import { useMemo, useRef, useState, type DragEvent } from 'react';
import { noWords, parseSelectorList, type OutlinedRule, type RuleRef } from '@syndeton/core';
import type { FileTextReply, OperationBody } from '@syndeton/contract';
import type { DraftInHand } from '../drafts/index.ts';
import type { SiteView } from '../site/index.ts';

import { editorText } from './editor/lineEnds.ts';
import { SheetEditor, type EditorHandle, type RuleHere } from './editor/SheetEditor.tsx';
import { RuleActs } from './RuleActs.tsx';
import { RuleTie } from './RuleTie.tsx';
import { RulePanel } from './RulePanel.tsx';
import { ruleDrag, ruleRefOf } from './ruleRefOf.ts';
import type { SheetTask } from './SheetBox.tsx';
import { TypedNotice } from './TypedNotice.tsx';
import { useSelectorReachQuery, useSheetReachQuery, useSiteWordsQuery } from './sheetsApi.ts';
import { useSheetEdit } from './useSheetEdit.ts';
import type { Looked } from './writing/answers.ts';
import { wrongLines } from './wrongLines.ts';

interface Props {
  readonly view: SiteView;
  readonly inHand: DraftInHand;
  readonly path: string;
  /** Pages that link it. */
  readonly pages: readonly string[];
  readonly file: FileTextReply;
  readonly hasOthers: boolean;
  /** What the text shows by itself. */
  readonly onWrong: (wrong: number) => void;
  readonly onTask: (task: SheetTask) => void;
  /** Puts operations into the draft, what is typed before them. */
  readonly onAdd: (title: string, operations: readonly OperationBody[]) => void;
}

/** The text of one sheet, and beside it what the rule at the cursor reaches and what an edit does. */
export function OneSheet({ view, inHand, path, pages, file, hasOthers, onWrong, onTask, onAdd }: Props) {
  const at = { id: view.siteId, number: inHand.draft!.base };
  const edit = useSheetEdit(view.siteId, inHand, path, file);
  const { typed } = edit;
  const handle = useRef<EditorHandle | undefined>(undefined);
  const [looked, setLooked] = useState<{ readonly now: Looked; readonly before: readonly OutlinedRule[] } | undefined>(
    undefined,
  );
  const [here, setHere] = useState<RuleHere | undefined>(undefined);
  const [generation, setGeneration] = useState(0);
  const [isUnlooked, setIsUnlooked] = useState(false);
  const { data: reach } = useSheetReachQuery({ ...at, path });
  const { data: words } = useSiteWordsQuery(at);
  const selector =
    here && !here.rule.isNested && parseSelectorList(here.rule.selector) ? here.rule.selector : undefined;
  const { currentData: reaches } = useSelectorReachQuery(
    { ...at, selector: selector ?? '', sheet: path },
    { skip: selector === undefined },
  );
  const reachByStart = useMemo(() => new Map(reach?.rules.map((rule) => [rule.start, rule])), [reach]);
  const putBack = (): void => {
    typed.drop();
    setGeneration((n) => n + 1);
  };
  const ref: RuleRef | undefined =
    here && !here.rule.isNested && looked ? ruleRefOf(here.rule, looked.now.rules) : undefined;
  const { rule } = here ?? {};
  return (
    <>
      <div className="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] grid-rows-[30px_auto_minmax(0,1fr)]">
        <div className="text-note text-ink-3 flex gap-3.5 items-center pr-4 pl-3.5 border-b border-line-2">
          <span>line</span>
          <span>rule</span>
          <span className="ml-auto">reach: pages of {reach?.pages.length ?? pages.length}, elements</span>
        </div>
        <TypedNotice typed={typed} path={path} isUnlooked={isUnlooked} onDrop={putBack} />
        <div className="row-start-3 min-h-0">
          <SheetEditor
            key={generation}
            base={file.text ?? ''}
            typed={typed.text}
            label={`Text of ${path}`}
            inQuirks={
              view.survey?.pages.some(({ path: page, mode }) => mode === 'quirks' && pages.includes(page)) ?? false
            }
            words={words ?? noWords}
            reach={reachByStart}
            line={view.line}
            handle={handle}
            onChange={typed.type}
            onLooked={(now, before) => {
              setLooked({ now, before });
              setIsUnlooked(false);
              onWrong(wrongLines(editorText(typed.text ?? file.text ?? ''), now.findings));
            }}
            onUnlooked={() => setIsUnlooked(true)}
            onRule={setHere}
            onAdd={edit.addToDraft}
          />
        </div>
      </div>
      {here && <RuleTie handle={handle} start={here.rule.start} />}
      <RulePanel
        view={view}
        inHand={inHand}
        path={path}
        pages={pages}
        edit={edit}
        here={here}
        looked={looked}
        selector={selector}
        reach={reach}
        reaches={reaches}
        words={words}
        handle={handle}
        onPutBack={putBack}
        onAdd={onAdd}
        onClass={(name, take, elements) =>
          onAdd(take ? `Take the class ${name}?` : `Give the class ${name}?`, [
            { kind: 'give-class', name, ...(take ? { take } : {}), elements: [...elements] },
          ])
        }
        acts={
          rule && ref ? (
            <span
              draggable={hasOthers}
              onDragStart={(event: DragEvent) => event.dataTransfer.setData(ruleDrag, JSON.stringify(ref))}
            >
              <RuleActs
                selector={rule.selector}
                parts={rule.selector.includes(',')}
                onMove={
                  hasOthers
                    ? () =>
                        onTask({
                          does: 'move',
                          selector: rule.selector,
                          operation: (to) => ({ kind: 'move-rules', sheet: path, rules: [ref], to }),
                        })
                    : undefined
                }
                onSplitSheet={
                  rule.under.length === 0
                    ? () =>
                        onTask({
                          does: 'split',
                          selector: rule.selector,
                          operation: (to) => ({ kind: 'split-sheet', sheet: path, from: ref, to }),
                        })
                    : undefined
                }
                onPart={() => onAdd(`Part ${rule.selector}?`, [{ kind: 'split-rule', sheet: path, rule: ref }])}
                onCommentOut={() =>
                  onAdd(`Comment ${rule.selector} out?`, [
                    { kind: 'delete-rules', sheet: path, rules: [ref], keep: 'comment' },
                  ])
                }
                onDelete={() =>
                  onAdd(`Take ${rule.selector} out?`, [{ kind: 'delete-rules', sheet: path, rules: [ref] }])
                }
                onName={
                  nameIn(rule.selector) ? () => onTask({ does: 'name', name: nameIn(rule.selector)! }) : undefined
                }
              />
            </span>
          ) : null
        }
      />
    </>
  );
}

/** The first class or ID a selector names. */
const nameIn = (selector: string): string | undefined => /[.#][A-Za-z_-][\w-]*/.exec(selector)?.[0];
