import type { KeyboardEvent } from 'react';
import type { LinkPlace } from '@syndeton/core';
import { sheetHeadLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { Mark } from '../../ui/Mark.tsx';
import type { LinkColumn } from './linkGrid.ts';

interface Props {
  readonly column: LinkColumn;
  /** The chosen pages. */
  readonly pages: readonly string[];
  /** The columns' sheets from left to right. */
  readonly order: readonly string[];
  readonly on: boolean;
  readonly dragged: string | undefined;
  readonly onDrag: (path: string | undefined) => void;
  readonly onOpen: () => void;
  readonly onMend: () => void;
  readonly onLink: () => void;
  readonly onReorder: (path: string, place: LinkPlace) => void;
}

export const linkHeadLook =
  'grid min-w-0 content-start justify-items-start gap-px pt-2.25 pr-2.5 pb-2 pl-3.5 text-note/4.25';

/** A sheet's head: how many pages reach it, and the one thing to do. Dragged onto another, or Shift with an arrow, it changes places. */
export function LinkHead({ column, pages, order, on, dragged, onDrag, onOpen, onMend, onLink, onReorder }: Props) {
  const { path, exists, linked, media, mends } = column;
  const lacking = pages.filter((page) => column.cells.get(page)?.position === undefined).length;
  const at = order.indexOf(path);
  const onKeyDown = (event: KeyboardEvent): void => {
    if (!event.shiftKey || !/^Arrow(Left|Right)$/.test(event.key)) return;
    const other = order[at + (event.key === 'ArrowLeft' ? -1 : 1)];
    if (other === undefined) return;
    event.preventDefault();
    onReorder(path, { at: event.key === 'ArrowLeft' ? 'before' : 'after', sheet: other });
  };
  const drop = (): void => {
    if (dragged !== undefined && dragged !== path)
      onReorder(dragged, { at: order.indexOf(dragged) < at ? 'after' : 'before', sheet: path });
    onDrag(undefined);
  };
  return (
    // oxlint-disable-next-line jsx-a11y/interactive-supports-focus -- the button in it takes the focus, and moves it by keyboard
    <div
      role="columnheader"
      className={`${linkHeadLook} ${on ? 'bg-ground inset-shadow-[0_-2px_var(--ink)]' : ''} ${dragged !== undefined && dragged !== path ? 'inset-shadow-[2px_0_var(--thread)]' : ''}`}
      draggable={linked > 0}
      onDragStart={(event) => {
        event.dataTransfer.setData('text/plain', path);
        event.dataTransfer.effectAllowed = 'move';
        onDrag(path);
      }}
      onDragOver={(event) => dragged !== undefined && event.preventDefault()}
      onDrop={drop}
      onDragEnd={() => onDrag(undefined)}
    >
      <button
        type="button"
        className={sheetHeadLook}
        aria-pressed={on}
        title={`${path}: place, path, medium. Shift with ← or → moves it.`}
        onClick={onOpen}
        onKeyDown={onKeyDown}
      >
        <Mark kind="linked" hidden /> <b className="m">{path}</b>
      </button>
      <span
        className={`ml-4.5 max-w-[calc(100%-var(--spacing)*4.5)] truncate ${exists ? 'text-note text-ink-3' : 'font-medium text-error'}`}
      >
        {exists
          ? linked === 0
            ? 'no page links it'
            : `${linked} of ${pages.length === 0 ? linked : Math.max(pages.length, linked)}${media === '' ? '' : `, ${media}`}`
          : 'no such file'}
      </span>
      {mends.length > 0 ? (
        <Act className="ml-4.5" onClick={onMend}>
          Mend {mends.length}
        </Act>
      ) : exists && linked > 0 && lacking > 0 && lacking * 2 <= pages.length ? (
        <Act className="ml-4.5" onClick={onLink}>
          Link the {lacking <= 3 ? lacking : 'rest'}
        </Act>
      ) : (
        <span className="ml-4.5 text-note">&nbsp;</span>
      )}
    </div>
  );
}
