import { useMemo, useState } from 'react';
import type { RuleRef } from '@syndeton/core';
import type { OperationBody } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { sayLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { count } from '../../ui/format.ts';
import { Problem } from '../../ui/Said.tsx';
import { useAskedFirst, type DraftInHand } from '../drafts/index.ts';
import type { SiteView } from '../site/index.ts';
import { ComparedSheet } from './ComparedSheet.tsx';
import { OneSheet } from './OneSheet.tsx';
import { SheetActs } from './SheetActs.tsx';
import { SheetBox, type SheetTask } from './SheetBox.tsx';
import { SheetList } from './SheetList.tsx';
import { useSheetReachQuery, useSheetTextQuery } from './sheetsApi.ts';
import { readUnfinished, useUnfinishedSheets } from './unfinished.ts';
import { valuesIn } from './usedValues.ts';
import { withEdit } from './useSheetEdit.ts';

/** The shared sheets and the text of one; whatever is done here is an operation of the draft. */
export function SheetsStation({ view, inHand }: { readonly view: SiteView; readonly inHand: DraftInHand }) {
  const draft = inHand.draft!;
  const { sheets } = draft;
  const sheet = sheets.find(({ path }) => path === view.opened) ?? sheets[0];
  const path = sheet?.path ?? '';
  const { currentData: file } = useSheetTextQuery({ id: view.siteId, path }, { skip: !sheet });
  const { currentData: reach } = useSheetReachQuery({ id: view.siteId, number: draft.base, path }, { skip: !sheet });
  const unfinished = useUnfinishedSheets(view.siteId);
  const [wrong, setWrong] = useState<{ readonly path: string; readonly count: number } | undefined>(undefined);
  const [task, setTask] = useState<SheetTask | undefined>(undefined);
  const [comparing, setComparing] = useState(false);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const asked = useAskedFirst(view.siteId, inHand);
  const used = useMemo(() => valuesIn(file?.text ?? ''), [file]);

  /** What is typed goes into the draft first: nothing is done over it. */
  const addToDraft = async (title: string, operations: readonly OperationBody[], goTo?: string): Promise<void> => {
    setProblem(undefined);
    const typed = readUnfinished(view.siteId, path);
    const edit: OperationBody | undefined =
      typed && file && typed.text !== file.text
        ? { kind: 'edit-sheet', path, hash: file.hash, text: typed.text }
        : undefined;
    const all = edit ? [edit, ...operations] : operations;
    const how = async (): Promise<void> => {
      await inHand.change((now) => [...(edit ? withEdit(now, edit) : now), ...operations]);
      if (goTo !== undefined) view.open(goTo);
    };
    await asked.addToDraft(title, all, [], how);
  };
  const quietly = (title: string, operations: readonly OperationBody[]): void =>
    void addToDraft(title, operations).catch((error: unknown) => setProblem(problemText(error)));

  const box = task && (
    <SheetBox
      task={task}
      siteId={view.siteId}
      path={path}
      sheets={sheets}
      pages={view.scope}
      onAdd={addToDraft}
      onClose={() => setTask(undefined)}
    />
  );
  if (!sheet)
    return (
      <div className="p-6">
        <h1 className={sayLook}>The site has no sheet yet. Gather rules from the pages to make one.</h1>
        <p className="mt-3">
          <Act onClick={() => setTask({ does: 'new' })}>Or begin with a new sheet</Act>
        </p>
        {box}
        {asked.question}
      </div>
    );
  const repeated = [...used.colours, ...used.fonts].filter(({ uses }) => uses > 1).map(({ name }) => name);
  const idle = reach?.rules.filter(({ elements }) => elements === 0).length ?? 0;
  return (
    <div className="relative grid h-full grid-cols-[188px_minmax(0,550fr)_minmax(300px,480fr)] grid-rows-[56px_minmax(0,1fr)] max-[1200px]:grid-cols-[168px_minmax(0,1fr)_300px] max-phone:block max-phone:h-auto max-phone:*:border-l-0">
      <div className="col-span-full flex items-center border-b border-line px-5">
        <h1 className={sayLook}>
          <b>{path}</b> has <b>{count(sheet.rules, 'rule')}</b> for <b>{count(sheet.pages.length, 'page')}</b>
          {wrong?.path === path && wrong.count > 0 && (
            <>
              ; <b>{count(wrong.count, 'line')}</b>{' '}
              {wrong.count === 1 ? 'does not do what it says' : 'do not do what they say'}
            </>
          )}
          {idle > 0 && (
            <>
              {wrong?.path === path && wrong.count > 0 ? ', ' : '; '}
              <b>{count(idle, 'rule')}</b> {idle === 1 ? 'matches' : 'match'} nothing
            </>
          )}
          .
        </h1>
        {problem !== undefined && <Problem className="ml-6 text-table">{problem}</Problem>}
      </div>
      <SheetList
        sheets={sheets}
        path={path}
        unfinished={unfinished}
        used={used}
        acts={
          <SheetActs
            text={file?.text ?? ''}
            path={path}
            hasOthers={sheets.length > 1}
            idle={idle}
            repeated={repeated}
            onTask={setTask}
            onCompare={() => setComparing(true)}
            onAdd={(title, operation) => quietly(title, [operation])}
          />
        }
        onOpen={(next) => view.open(next)}
        onNew={() => setTask({ does: 'new' })}
        onValue={(value) => view.goWith('precedence', { way: 'value', value })}
        onRule={(to, rule) =>
          quietly(`Move ${rule.selector} to ${to}?`, [{ kind: 'move-rules', sheet: path, rules: [plain(rule)], to }])
        }
      />
      {file === undefined ? (
        <p className="text-note text-ink-3 p-4" role="status">
          Reading {path} …
        </p>
      ) : file.text === null ? (
        <p className="p-4">
          <span className="font-medium text-error">This sheet does not encode back to its own bytes,</span> so it is
          carried along and never edited.
        </p>
      ) : (
        <OneSheet
          key={path}
          view={view}
          inHand={inHand}
          path={path}
          pages={sheet.pages}
          file={file}
          hasOthers={sheets.length > 1}
          onWrong={(n) => setWrong({ path, count: n })}
          onTask={setTask}
          onAdd={quietly}
        />
      )}
      {comparing && typeof file?.text === 'string' && (
        <ComparedSheet siteId={view.siteId} path={path} text={file.text} onClose={() => setComparing(false)} />
      )}
      {box}
      {asked.question}
    </div>
  );
}

const plain = ({ under, ...rule }: RuleRef) => ({ ...rule, ...(under ? { under: [...under] } : {}) });
