import { useMemo, useRef, useState, type ReactNode, type RefObject } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { SurveyReply } from '@syndeton/contract';
import { fileNameOf, folderOf } from '@syndeton/core';
import { Mark, markNames, type MarkKind } from '../../ui/Mark.tsx';
import { pageName } from '../../ui/format.ts';

type Row =
  | { readonly kind: 'folder'; readonly folder: string; readonly pages: readonly string[] }
  | { readonly kind: 'page'; readonly path: string };

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

/** All pages by folder, each with its sources as marks in document order. Choosing pages sets the scope. */
export function PagesRail({ pages, survey, chosen, onChoose, filterRef, verdictOf, legend }: Props) {
  const [filter, setFilter] = useState('');
  const anchor = useRef<string | undefined>(undefined);
  const list = useRef<HTMLDivElement>(null);
  const shown = useMemo(
    () => pages.filter((page) => page.toLowerCase().includes(filter.toLowerCase())),
    [pages, filter],
  );
  const rows = useMemo(() => rowsOf(shown), [shown]);
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
  const choose = (path: string, event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }): void => {
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
  return (
    <aside className="rail" aria-label="Pages">
      <div className="railh">
        <b>Pages</b>
        <span className="n">
          {filter === ''
            ? pages.length.toLocaleString('en')
            : `${shown.length.toLocaleString('en')} of ${pages.length.toLocaleString('en')}`}
        </span>
        <label className="filt">
          <input
            ref={filterRef}
            value={filter}
            onChange={(event) => setFilter(event.target.value)}
            placeholder="filter"
            aria-label="Filter pages"
          />
          <kbd aria-hidden="true">/</kbd>
        </label>
      </div>
      <div className="pages" ref={list}>
        <div
          style={{ height: virtual.getTotalSize(), position: 'relative' }}
          role="group"
          aria-label="Choose pages to narrow every figure"
        >
          {virtual.getVirtualItems().map((item) => {
            const row = rows[item.index]!;
            const style = { position: 'absolute', top: item.start, left: 0 } as const;
            if (row.kind === 'folder')
              return (
                <button
                  key={item.key}
                  type="button"
                  className="pg fold"
                  style={style}
                  onClick={() => onChoose(row.pages)}
                >
                  <span>{row.folder}</span>
                </button>
              );
            return (
              <button
                key={item.key}
                type="button"
                className={`pg${row.path.includes('/') ? ' in' : ''}${chosen.has(row.path) ? ' on' : ''}`}
                style={style}
                aria-pressed={chosen.has(row.path)}
                onClick={(event) => choose(row.path, event)}
              >
                <span>{pageName(fileNameOf(row.path))}</span>
                {verdictOf ? (
                  <span className="vd">{verdictOf(row.path)}</span>
                ) : (
                  <SourceString kinds={sources.get(row.path) ?? []} />
                )}
              </button>
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
    <span className="sstr">
      {marks.map((kind, i) =>
        kind === undefined ? (
          <span key={i} className="note" aria-label="and more">
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
    <div className="lgd" role="group" aria-label="Sources, by mark">
      {kinds.map(([kind, name]) => (
        <span key={kind} title={markNames[kind]}>
          <Mark kind={kind} hidden /> {name}
        </span>
      ))}
    </div>
  );
}

function rowsOf(pages: readonly string[]): readonly Row[] {
  const rows: Row[] = [];
  let folder = '';
  for (const path of pages) {
    if (folderOf(path) !== folder) {
      folder = folderOf(path);
      const inside = pages.filter((p) => folderOf(p) === folder);
      if (folder !== '') rows.push({ kind: 'folder', folder, pages: inside });
    }
    rows.push({ kind: 'page', path });
  }
  return rows;
}
