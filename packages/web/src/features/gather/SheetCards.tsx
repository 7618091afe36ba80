import { useState } from 'react';
import type { DraftReply } from '@syndeton/contract';
import { Act } from '../../ui/Act.tsx';
import { Coded } from '../../ui/Coded.tsx';
import { Mark } from '../../ui/Mark.tsx';
import { pageName } from '../../ui/format.ts';

interface Props {
  readonly draft: DraftReply;
  readonly canSend: boolean;
  readonly onSend: (sheet: string) => void;
  readonly onSheet: (path: string) => void;
  readonly onUndo: () => void;
  /** Why a sheet of the plan is one of its own, by its path. */
  readonly reasons: ReadonlyMap<string, string>;
}

/** The sheets as the draft leaves them. With rules chosen, a card sends them there; else it opens the sheet. */
export function SheetCards({ draft, canSend, onSend, onSheet, onUndo, reasons }: Props) {
  const [over, setOver] = useState<string | undefined>(undefined);
  const before = new Map(draft.changes.map((change) => [change.path, change]));
  return (
    <aside
      className="bg-ground border-l border-line-2 pt-3.5 pr-3.5 pb-3.5 pl-4.5 min-w-0 overflow-auto"
      aria-label="Sheets"
    >
      <div className="mb-2 flex items-baseline">
        <h2 className="text-body!">Sheets</h2>
        <Act className="ml-auto" disabled={!canSend} onClick={() => onSend('')}>
          New sheet
        </Act>
      </div>
      {inOrder(draft.sheets).map((sheet) => {
        const change = before.get(sheet.path);
        return (
          <button
            key={sheet.path}
            type="button"
            data-new={sheet.isNew || undefined}
            className={`relative mb-2.25 block w-full rounded-[2px] rounded-tr-[9px] border py-2 pr-2.5 pl-3 text-left text-table ${sheet.isNew ? 'border-dashed' : 'bg-panel'} ${over === sheet.path ? 'border-thread ring ring-thread' : 'border-line-2 hover:border-ink-3'}`}
            onDragOver={(event) => {
              event.preventDefault();
              setOver(sheet.path);
            }}
            onDragLeave={() => setOver(undefined)}
            onDrop={(event) => {
              event.preventDefault();
              setOver(undefined);
              onSend(sheet.path);
            }}
            onClick={() => (canSend ? onSend(sheet.path) : onSheet(sheet.path))}
            title={canSend ? `Send the chosen rules to ${sheet.path}` : `Open ${sheet.path}`}
          >
            <Mark kind="linked" hidden /> <span className="m font-bold">{sheet.path}</span>{' '}
            {sheet.isNew && <span className="text-note text-ink-3">new</span>}
            <dl className="mt-0.75 grid grid-cols-[1fr_auto] gap-x-2 text-ink-2 [&_b]:font-semibold [&_b]:text-ink [&_dd]:text-right">
              <dt>rules</dt>
              <dd>
                <b>{sheet.rules}</b>
              </dd>
              <dt>size, kB</dt>
              <dd>
                {change && !sheet.isNew && `${(change.bytesBefore / 1000).toFixed(1)} → `}
                <b>{(sheet.bytes / 1000).toFixed(1)}</b>
              </dd>
              <dt>{sheet.isNew ? 'will be linked by' : 'linked by'}</dt>
              <dd>
                <b>{sheet.pages.length === 1 ? pageName(sheet.pages[0]!) : sheet.pages.length}</b>
              </dd>
            </dl>
            {reasons.has(sheet.path) && (
              <small className="mt-1 block border-t border-line pt-1 text-note/3.75 wrap-anywhere text-ink-2">
                <Coded text={reasons.get(sheet.path)!} />
              </small>
            )}
          </button>
        );
      })}
      {draft.operations.length > 0 && (
        <p className="text-note text-ink-3">
          <Act onClick={onUndo}>Take the last step back</Act> <kbd>Ctrl Z</kbd>
        </p>
      )}
    </aside>
  );
}

/** New sheets first, the widest of them on top. */
const inOrder = (sheets: DraftReply['sheets']): DraftReply['sheets'] =>
  [...sheets].sort((a, b) => Number(b.isNew) - Number(a.isNew) || (a.isNew ? b.pages.length - a.pages.length : 0));
