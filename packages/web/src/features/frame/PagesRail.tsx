import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type ReactNode, type RefObject } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { SurveyReply } from '@syndeton/contract';
import { fileNameOf } from '@syndeton/core';

import { Mark, markNames, type MarkKind } from '../../ui/Mark.tsx';
import { pageName } from '../../ui/format.ts';
import { RailLegend } from './RailLegend.tsx';
import { railRows, rowAfter } from './railRows.ts';

interface Props {
  readonly pages: readonly string[];
  readonly survey: SurveyReply | undefined;
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (pages: readonly string[]) => void;
  readonly filterRef: RefObject<HTMLInputElement | null>;
  /** What stands at the right of a page instead of its sources. */
  readonly verdictOf?: ((path: string) => ReactNode) | undefined;
  readonly legend?: ReactNode;
}

const mostMarks = 6;

const rowLook =
  'flex h-(--row-page) w-full cursor-pointer items-center gap-1.5 pr-3 text-left font-code text-code/5 whitespace-nowrap hover:bg-picked focus-visible:shadow-within [&>span:first-child]:min-w-0 [&>span:first-child]:flex-1 [&>span:first-child]:truncate';

/** All pages by folder, each with its sources as marks in document order. Choosing pages sets the scope. */
export function PagesRail({ pages, survey, chosen, onChoose, filterRef, verdictOf, legend }: Props) {
  const [filter, setFilter] = useState('');
  const anchor = useRef<string | undefined>(undefined);
  const list = useRef<HTMLDivElement>(null);
  /** The row that keys move from. */
  const [at, setAt] = useState(0);
  /** A key asked for another row, which may have to be drawn first. */
  const moved = useRef(false);
  const shown = useMemo(
    () => pages.filter((page) => page.toLowerCase().includes(filter.toLowerCase())),
    [pages, filter],
  );
  const rows = useMemo(() => railRows(shown), [shown]);
  const sources = useMemo(
    () => new Map(survey?.pages.map((page) => [page.path, page.sources.map((s) => s.kind as MarkKind)])),
    [survey],
  );
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => list.current,
    estimateSize: () => 20,
    overscan: 20,
  });
  const choose = (path: string, event: Pick<MouseEvent, 'shiftKey' | 'ctrlKey' | 'metaKey'>): void => {
    if (event.shiftKey && anchor.current !== undefined) {
      const [from, to] = [shown.indexOf(anchor.current), shown.indexOf(path)].sort((a, b) => a - b);
      onChoose(shown.slice(from, to! + 1));
      return;
    }
    anchor.current = path;
    if (event.ctrlKey || event.metaKey)
      onChoose(chosen.has(path) ? [...chosen].filter((p) => p !== path) : [...chosen, path]);
    else onChoose(chosen.size === 1 && chosen.has(path) ? [] : [path]);
  };
  const pick = (index: number, event: Pick<MouseEvent, 'shiftKey' | 'ctrlKey' | 'metaKey'>): void => {
    const row = rows[index]!;
    setAt(index);
    if (row.kind === 'folder') onChoose(row.pages);
    else choose(row.path, event);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (rows.length === 0) return;
    // Ctrl+Enter saves, wherever one is
    if (event.key === ' ' || (event.key === 'Enter' && !event.ctrlKey && !event.metaKey)) {
      event.preventDefault();
      pick(standing, event);
      return;
    }
    const next = rowAfter(rows, standing, event.key, event.shiftKey);
    if (next === undefined) return;
    event.preventDefault();
    const from = rows[standing]!;
    if (event.shiftKey && anchor.current === undefined && from.kind === 'page') anchor.current = from.path;
    if (event.shiftKey) pick(next, event);
    virtual.scrollToIndex(next);
    moved.current = true;
    setAt(next);
  };
  const items = virtual.getVirtualItems();
  // the row that the Tab key leads to is one that is there
  const standing = items.some(({ index }) => index === at) ? at : (items[0]?.index ?? 0);
  useEffect(() => {
    const row = moved.current ? list.current?.querySelector<HTMLElement>(`[aria-posinset='${at + 1}']`) : undefined;
    if (!row) return;
    moved.current = false;
    row.focus();
  });
  return (
    <aside className="border-r border-line-2 flex flex-col overflow-hidden min-h-0 max-phone:hidden" aria-label="Pages">
      <div className="flex h-11 flex-none items-center gap-1.5 pr-3 pl-4">
        <b>Pages</b>
        <span className="text-ink-3">
          {filter === ''
            ? pages.length.toLocaleString('en')
            : `${shown.length.toLocaleString('en')} of ${pages.length.toLocaleString('en')}`}
        </span>
        <label className="ml-auto flex h-6 w-23 items-center border-b border-line-2 text-table/[inherit] text-ink-3 focus-within:border-ink">
          <input
            ref={filterRef}
            className="w-full min-w-0 bg-transparent text-ink outline-none placeholder:text-ink-3"
            value={filter}
            onChange={(event) => setFilter(event.target.value)}
            placeholder="filter"
            aria-label="Filter pages"
          />
          <kbd aria-hidden="true">/</kbd>
        </label>
      </div>
      <div className="flex-1 min-h-0 overflow-auto relative" ref={list}>
        <div
          style={{ height: virtual.getTotalSize(), position: 'relative' }}
          role="listbox"
          aria-multiselectable="true"
          aria-label="Choose pages to narrow every figure"
          tabIndex={-1}
          onKeyDown={onKeyDown}
        >
          {items.map(({ index, key, start }) => {
            const row = rows[index]!;
            const common = {
              role: 'option',
              tabIndex: index === standing ? 0 : -1,
              'aria-posinset': index + 1,
              'aria-setsize': rows.length,
              style: { position: 'absolute', top: start, left: 0 },
              onClick: (event: React.MouseEvent) => pick(index, event),
            } as const;
            if (row.kind === 'folder')
              return (
                <div
                  key={key}
                  className={`${rowLook} pl-4 text-ink-3`}
                  aria-selected={row.pages.every((page) => chosen.has(page))}
                  {...common}
                >
                  <span>{row.folder}</span>
                </div>
              );
            const isOn = chosen.has(row.path);
            return (
              <div
                key={key}
                className={`${rowLook} ${row.path.includes('/') ? 'pl-7' : 'pl-4'} ${isOn ? 'bg-panel font-bold shadow-bar' : ''}`}
                aria-selected={isOn}
                {...common}
              >
                <span>{pageName(fileNameOf(row.path))}</span>
                {verdictOf ? (
                  <span className="font-ui text-table/[inherit] text-ink-3 [&_b]:text-ink">{verdictOf(row.path)}</span>
                ) : (
                  <SourceString kinds={sources.get(row.path) ?? []} />
                )}
              </div>
            );
          })}
        </div>
      </div>
      {legend ?? <Legend />}
    </aside>
  );
}

/** Neighbouring blocks of one kind count once, so that the string says the order of kinds at a glance. */
function SourceString({ kinds }: { readonly kinds: readonly MarkKind[] }) {
  const joined = kinds.filter((kind, i) => kind !== 'embedded' || kinds[i - 1] !== 'embedded');
  // of many, the first ones and the last: what comes last beats the rest
  const marks = joined.length > mostMarks ? [...joined.slice(0, 2), undefined, ...joined.slice(3 - mostMarks)] : joined;
  return (
    <span className="inline-flex gap-[2.5px] items-center">
      {marks.map((kind, i) =>
        kind === undefined ? (
          <span key={i} className="text-note text-ink-3" aria-label="and more">
            ·
          </span>
        ) : (
          <Mark key={i} kind={kind} />
        ),
      )}
    </span>
  );
}

function Legend() {
  const kinds: readonly (readonly [MarkKind, string])[] = [
    ['default', 'default'],
    ['imported', 'imported'],
    ['presentational', 'presentational'],
    ['embedded', 'embedded'],
    ['linked', 'linked'],
    ['attribute', 'style attribute'],
  ];
  return (
    <RailLegend label="Sources, by mark">
      {kinds.map(([kind, name]) => (
        <span key={kind} title={markNames[kind]}>
          <Mark kind={kind} hidden /> {name}
        </span>
      ))}
    </RailLegend>
  );
}
