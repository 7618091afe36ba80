import { useState } from 'react';
import type { OperationBody } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import type { DraftInHand } from '../drafts/index.ts';
import type { SiteView } from '../site/index.ts';
import { useSheetTextQuery } from './sheetsApi.ts';
import { SheetsView } from './SheetsView.tsx';

export function SheetsStation({ view, inHand }: { readonly view: SiteView; readonly inHand: DraftInHand }) {
  const { draft, proof } = inHand;
  const sheets = draft!.sheets;
  const path = sheets.find((sheet) => sheet.path === view.opened)?.path ?? sheets[0]?.path;
  const { currentData: file } = useSheetTextQuery({ id: view.siteId, path: path ?? '' }, { skip: path === undefined });
  const [typed, setTyped] = useState<{ readonly path: string; readonly text: string } | undefined>(undefined);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const text = typed && typed.path === path ? typed.text : undefined;
  const changed = text !== undefined && file !== undefined && file.text !== null && text !== file.text;

  const lineUp = async (): Promise<void> => {
    if (!changed || path === undefined) return;
    setProblem(undefined);
    const edit: OperationBody = { kind: 'edit-sheet', path, hash: file.hash, text };
    try {
      await inHand.change((operations) => {
        const last = operations.at(-1);
        // an edit of the same sheet right before becomes one with this one
        return last?.kind === 'edit-sheet' && last.path === path
          ? [...operations.slice(0, -1), { ...last, text }]
          : [...operations, edit];
      });
      setTyped(undefined);
    } catch (error) {
      setProblem(problemText(error));
    }
  };
  return (
    <SheetsView
      sheets={sheets}
      path={path}
      file={file}
      changed={changed}
      busy={inHand.busy}
      problem={problem}
      linedUp={draft!.operations.some((operation) => operation.kind === 'edit-sheet')}
      proof={proof}
      onOpen={(sheet) => {
        setProblem(undefined);
        view.open(sheet);
      }}
      onType={(next) => setTyped({ path: path!, text: next })}
      onLineUp={() => void lineUp()}
      onPutBack={() => setTyped(undefined)}
      onPage={(page) => view.go('proof', page)}
    />
  );
}
