import { useRef, useState } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { FindingReply, SurveyReply } from '@syndeton/contract';
import { folderOf, type LinkPlace, type PathStyle } from '@syndeton/core';
import { markLook, sayLook, sheetHeadLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { Button } from '../../ui/Button.tsx';
import { Mark } from '../../ui/Mark.tsx';
import { Menu, MenuItem } from '../../ui/Menu.tsx';
import { count, pageName } from '../../ui/format.ts';
import { Problem } from '../../ui/Said.tsx';
import { LinkHead, linkHeadLook } from './LinkHead.tsx';
import { LinkPanel } from './LinkPanel.tsx';
import type { LinkCell, LinkColumn, LinkGrid } from './linkGrid.ts';

export interface LinksProps {
  readonly survey: SurveyReply;
  readonly grid: LinkGrid;
  readonly column: LinkColumn | undefined;
  readonly pages: readonly string[];
  readonly scope: readonly string[];
  readonly scoped: boolean;
  readonly busy: boolean;
  readonly problem: string | undefined;
  readonly paths: PathStyle;
  readonly onColumn: (path: string | undefined) => void;
  readonly onScope: (pages: readonly string[]) => void;
  readonly onPage: (page: string) => void;
  readonly onMend: (findings: readonly FindingReply[]) => void;
  readonly onLink: (column: LinkColumn, place: LinkPlace) => void;
  readonly onUnlink: (column: LinkColumn) => void;
  readonly onMove: (column: LinkColumn, place: LinkPlace) => void;
  readonly onMedia: (column: LinkColumn, media: string) => void;
  readonly onPaths: (column: LinkColumn, style: PathStyle) => void;
  readonly onRename: (column: LinkColumn, to: string) => void;
  readonly onImportsToLinks: () => void;
  readonly onToImports: (column: LinkColumn) => void;
  readonly onBaseline: () => void;
  readonly onCopy: (from: string) => void;
  readonly onReorder: (path: string, place: LinkPlace) => void;
}

/** Pages down, sheets across in load order; what is wrong in words. */
export function LinksView(props: LinksProps) {
  const { grid, pages, scope, scoped, survey, column } = props;
  const mends = grid.findings.filter((finding) => finding.action.does === 'mend');
  const hasBlocks = grid.blocks.size > 0;
  const existing = grid.columns.filter((one) => one.exists).length;
  const template = `196px repeat(${grid.columns.length}, minmax(142px, 1fr))${hasBlocks ? ' 108px' : ''}`;
  return (
    <div className="flex h-full flex-col">
      <div className="flex min-h-14 items-center gap-4 px-4 py-2 max-phone:flex-wrap">
        <h1 className={sayLook}>
          <b>{scoped ? `${scope.length} of ${pages.length} pages` : count(pages.length, 'page')}</b>,{' '}
          {count(existing, 'sheet')}:{' '}
          {grid.findings.length === 0 ? (
            <>every page has its links.</>
          ) : (
            <>
              <b>{count(grid.findings.length, 'link')}</b> {grid.findings.length === 1 ? 'needs' : 'need'} mending
              before every page has its links.
            </>
          )}
        </h1>
        <span className="ml-auto" />
        {scoped && (
          <>
            <Menu label="A page whose links they get" trigger={<Act>Link what another page links</Act>}>
              {pages
                .filter((page) => !scope.includes(page))
                .slice(0, 60)
                .map((page) => (
                  <MenuItem key={page} onSelect={() => props.onCopy(page)}>
                    {pageName(page)}
                  </MenuItem>
                ))}
            </Menu>
            <Act onClick={() => props.onScope([])}>All {pages.length} pages</Act>
          </>
        )}
        <Act onClick={props.onBaseline}>Put a baseline first</Act>
        {mends.length > 0 && (
          <Button next disabled={props.busy} onClick={() => props.onMend(mends)}>
            {mendWords(mends.length, grid.findings.length)}
          </Button>
        )}
      </div>
      <div
        className={`grid min-h-0 flex-1 max-phone:block ${column ? 'grid-cols-[minmax(0,1fr)_var(--w-side-wide)]' : 'grid-cols-1'}`}
      >
        <Grid {...props} template={template} hasBlocks={hasBlocks} />
        {column && (
          <LinkPanel
            key={column.path}
            column={column}
            grid={grid}
            survey={survey}
            scope={scope}
            busy={props.busy}
            problem={props.problem}
            paths={props.paths}
            onMend={props.onMend}
            onLink={(place) => props.onLink(column, place)}
            onUnlink={() => props.onUnlink(column)}
            onMove={(place) => props.onMove(column, place)}
            onMedia={(media) => props.onMedia(column, media)}
            onPaths={(style) => props.onPaths(column, style)}
            onRename={(to) => props.onRename(column, to)}
            onImportsToLinks={props.onImportsToLinks}
            onToImports={() => props.onToImports(column)}
            onClose={() => props.onColumn(undefined)}
          />
        )}
      </div>
      {!column && props.problem !== undefined && <Problem className="px-4 py-1">{props.problem}</Problem>}
    </div>
  );
}

/** Where some have no one right answer, the number of those that have one. */
function mendWords(mends: number, all: number): string {
  if (mends < all) return `Mend the ${mends === 1 ? 'one' : mends} with one right answer`;
  return mends === 1 ? 'Mend it' : `Mend all ${mends}`;
}

function Grid({
  grid,
  pages,
  scope,
  scoped,
  column,
  template,
  hasBlocks,
  onColumn,
  onScope,
  onMend,
  onLink,
  onReorder,
  onPage,
}: LinksProps & { readonly template: string; readonly hasBlocks: boolean }) {
  const box = useRef<HTMLDivElement>(null);
  const [dragged, setDragged] = useState<string | undefined>(undefined);
  const virtual = useVirtualizer({
    count: pages.length,
    getScrollElement: () => box.current,
    estimateSize: () => 20,
    overscan: 30,
  });
  const chosen = new Set(scoped ? scope : []);
  const troubled = new Set(
    grid.columns.flatMap((one) => [...one.cells].flatMap(([page, cell]) => (cell.wrong === undefined ? [] : [page]))),
  );
  const order = grid.columns.map((one) => one.path);
  return (
    <div
      className="overflow-auto min-w-0 min-h-0 border-t border-line-2 relative"
      ref={box}
      role="table"
      aria-label="Pages and the sheets they link"
      aria-rowcount={pages.length + 1}
    >
      <div
        className="grid sticky top-0 z-3 bg-panel border-b border-ink-3 min-w-[min-content]"
        role="row"
        aria-rowindex={1}
        style={{ gridTemplateColumns: template }}
      >
        <div
          role="columnheader"
          className="sticky left-0 z-1 content-end border-r border-line-2 bg-ground px-4 pt-2.5 pb-2 text-body/[inherit]"
        >
          <b>Pages</b> <span className="text-ink-2">{pages.length.toLocaleString('en')}</span>
        </div>
        {grid.columns.map((one) => (
          <LinkHead
            key={one.path}
            column={one}
            pages={scope}
            order={order}
            on={one.path === column?.path}
            dragged={dragged}
            onDrag={setDragged}
            onOpen={() => onColumn(one.path === column?.path ? undefined : one.path)}
            onMend={() => onMend(one.mends)}
            onLink={() => onLink(one, { at: 'before-blocks' })}
            onReorder={onReorder}
          />
        ))}
        {hasBlocks && (
          <div role="columnheader" className={linkHeadLook}>
            <span className={sheetHeadLook}>
              <Mark kind="embedded" hidden /> <b>blocks</b>
            </span>
            <span className="ml-4.5 truncate text-note text-ink-3">on {count(grid.blocks.size, 'page')}</span>
          </div>
        )}
      </div>
      <div style={{ height: virtual.getTotalSize(), position: 'relative' }} role="rowgroup">
        {virtual.getVirtualItems().map(({ index, start }) => {
          const page = pages[index]!;
          const fresh = index > 0 && folderOf(page) !== folderOf(pages[index - 1]!);
          return (
            <div
              key={page}
              role="row"
              aria-rowindex={index + 2}
              className={`group absolute inset-x-0 grid h-5 min-w-[min-content] hover:bg-picked ${fresh ? 'inset-shadow-[0_1px_var(--line)]' : ''} ${chosen.has(page) ? 'bg-picked' : ''}`}
              data-on={chosen.has(page) || undefined}
              style={{ gridTemplateColumns: template, top: start }}
            >
              <div
                role="rowheader"
                className="sticky left-0 z-1 min-w-0 border-r border-line-2 bg-ground group-data-on:bg-picked group-data-on:shadow-bar"
              >
                <button
                  type="button"
                  className={`m w-full truncate pr-2 pl-4 text-left leading-5 focus-visible:shadow-within ${troubled.has(page) ? 'font-bold' : ''}`}
                  aria-pressed={chosen.has(page)}
                  title={`${page}: click to choose it, double-click to open it`}
                  onClick={() => onScope(chosen.has(page) ? [...chosen].filter((p) => p !== page) : [...chosen, page])}
                  onDoubleClick={() => onPage(page)}
                >
                  <span className="text-ink-3">{folderOf(page)}</span>
                  {pageName(page.slice(folderOf(page).length))}
                </button>
              </div>
              {grid.columns.map((one) => {
                const joined = (other: string | undefined): boolean =>
                  other !== undefined && one.cells.get(other)?.position !== undefined;
                return (
                  <Cell
                    key={one.path}
                    cell={one.cells.get(page)}
                    on={one.path === column?.path}
                    up={joined(pages[index - 1])}
                    down={joined(pages[index + 1])}
                  />
                );
              })}
              {hasBlocks && <Blocks places={grid.blocks.get(page)} />}
            </div>
          );
        })}
      </div>
    </div>
  );
}

function Cell({
  cell,
  on,
  up,
  down,
}: {
  readonly cell: LinkCell | undefined;
  readonly on: boolean;
  readonly up: boolean;
  readonly down: boolean;
}) {
  const there = cell?.position !== undefined;
  const lines = there ? `${up ? fromAbove : ''} ${down ? toBelow : ''}` : '';
  return (
    <div
      role="cell"
      className={`${cellLook} ${on ? 'bg-ground group-hover:bg-transparent group-data-on:bg-transparent' : ''} ${lines}`}
    >
      {cell && (
        <>
          {there ? <Mark kind={cell.imported ? 'imported' : 'linked'} hidden /> : <Gap />}
          {there && <b>{cell.position}</b>}
          {cell.wrong !== undefined ? (
            <span className="truncate font-medium text-error" title={cell.wrong}>
              {cell.wrong}
            </span>
          ) : (
            <span className="truncate text-ink-3" title={[cell.media, ...cell.says].filter((x) => x !== '').join(', ')}>
              {[cell.imported ? 'imported' : '', cell.media === 'all' ? '' : cell.media, ...cell.says]
                .filter((x) => x !== '')
                .join(', ')}
            </span>
          )}
        </>
      )}
    </div>
  );
}

const cellLook =
  'relative flex min-w-0 items-center gap-1.5 overflow-hidden pl-3.5 text-table/[inherit] whitespace-nowrap [&_b]:min-w-2.5 [&_svg]:relative [&_svg]:z-1';

/** The line through the marks of neighbouring pages. */
const fromAbove = 'before:absolute before:top-0 before:left-4.75 before:h-2.5 before:w-0.5 before:bg-src-linked';
const toBelow = 'after:absolute after:top-2.5 after:bottom-0 after:left-4.75 after:w-0.5 after:bg-src-linked';

/** A link that is not there. */
const Gap = () => (
  <svg className={`${markLook} relative z-1 text-error`} viewBox="0 0 12 12" aria-hidden="true">
    <rect
      x="1.5"
      y="1.5"
      width="9"
      height="9"
      rx="1"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.6"
      strokeDasharray="2.2 1.6"
    />
  </svg>
);

function Blocks({ places = [] }: { readonly places?: readonly number[] | undefined }) {
  const [first, last] = [places[0], places.at(-1)];
  return (
    <div role="cell" className={cellLook}>
      {first !== undefined && (
        <>
          <Mark kind="embedded" hidden /> <b>{first === last ? first : `${first}–${last!}`}</b>
        </>
      )}
    </div>
  );
}
