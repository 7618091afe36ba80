import { useCallback, useRef, useState } from 'react';
import type { ElementTableReply, OperationBody } from '@syndeton/contract';
import { sayLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { Button } from '../../ui/Button.tsx';
import { count, pageName } from '../../ui/format.ts';
import { Menu, MenuItem } from '../../ui/Menu.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { Problem } from '../../ui/Said.tsx';
import { DecisionTable } from './DecisionTable.tsx';
import { dropOperations } from './dropOperations.ts';
import { PageFrame, type Point } from './PageFrame.tsx';
import { PickThread } from './PickThread.tsx';
import type { Asked } from './useAsked.ts';

interface Props {
  readonly siteId: string;
  readonly page: string;
  readonly pages: readonly string[];
  readonly asked: Asked;
  readonly table: ElementTableReply | undefined;
  readonly failed: string | undefined;
  readonly busy: boolean;
  readonly onPage: (page: string) => void;
  readonly onFile: (file: string, line: number) => void;
  readonly onAdd: (operations: readonly OperationBody[]) => void;
}

const encode = (path: string): string => path.split('/').map(encodeURIComponent).join('/');

/** One element after the other, from the outermost; a mark between each and the next. */
const pathLook =
  "flex flex-wrap gap-x-1.5 gap-y-0.5 pt-0.5 pb-1.5 text-ink-3 [&_b]:font-semibold [&_b]:text-ink [&_button]:underline-offset-3 hover:[&_button]:text-ink [&>*:not(:last-child)]:after:font-normal [&>*:not(:last-child)]:after:text-ink-3 [&>*:not(:last-child)]:after:content-['_›']";

/** One element of a page as it is rendered, and who decides each of its properties. */
export function ElementView({ siteId, page, pages, asked, table, failed, busy, onPage, onFile, onAdd }: Props) {
  const [computed, setComputed] = useState<Readonly<Record<string, string>>>({});
  const [all, setAll] = useState(false);
  const [thread, setThread] = useState<{ readonly from: Point; readonly to: Point } | undefined>(undefined);
  const head = useRef<HTMLHeadingElement>(null);
  const peeled = new Set(asked.peeled);
  const at = pages.indexOf(page);
  const peel = (id: string): void =>
    asked.set({ peel: peeled.has(id) ? asked.peeled.filter((one) => one !== id) : [...asked.peeled, id] });
  const strongest = table?.sources.findLast((one) => one.says > 0 && !one.peeled && one.kind !== 'browser');
  const onPick = useCallback((path: string) => asked.set({ element: path, peel: [], pseudo: '' }), [asked]);
  const onComputed = useCallback(
    (values: Readonly<Record<string, string>>) =>
      setComputed((old) => (JSON.stringify(old) === JSON.stringify(values) ? old : values)),
    [],
  );
  const onPlace = useCallback((from: Point | undefined) => {
    const box = head.current?.getBoundingClientRect();
    setThread(from && box ? { from, to: { x: box.left - 8, y: box.top + box.height / 2 } } : undefined);
  }, []);
  useKeys({
    j: () => pages[at + 1] !== undefined && onPage(pages[at + 1]!),
    k: () => pages[at - 1] !== undefined && onPage(pages[at - 1]!),
    e: () => strongest && peel(strongest.id),
  });
  const contested =
    table?.rows.filter((row) => row.entries.length > 1 || row.entries.some((one) => one.state === 'peeled')) ?? [];
  const rows = all || contested.length === 0 ? (table?.rows ?? []) : contested;
  const sources = table?.sources.filter((one) => one.says > 0 || one.kind === 'browser' || one.peeled) ?? [];
  const drops = table ? dropOperations(table, asked.peeled) : undefined;
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(340px,474fr)_minmax(0,766fr)] max-[1101px]:grid-cols-[320px_minmax(0,1fr)] max-phone:block max-phone:h-auto">
      <PageFrame
        src={`/preview/${siteId}/draft/${encode(page)}`}
        page={page}
        element={asked.element}
        table={table}
        peeled={asked.peeled}
        width={asked.width}
        medium={asked.medium}
        states={asked.states}
        onPick={onPick}
        onComputed={onComputed}
        onPlace={onPlace}
        onWidth={(width) => asked.set({ width: String(width) })}
        onMedium={(medium) => asked.set({ medium: medium === 'print' ? 'print' : undefined })}
        onStates={(states) => asked.set({ state: states })}
      />
      <section className="overflow-auto pr-4 pb-4 pl-5 min-w-0 max-phone:px-4 max-phone:pb-4" aria-label="Who decides">
        {failed !== undefined && <Problem>{failed}</Problem>}
        {asked.element === '' ? (
          <h1 className={`${sayLook} py-4`}>
            Click an element of the page, or look for one by a selector or its text.
          </h1>
        ) : !table ? (
          failed === undefined && (
            <p className="text-note text-ink-3 py-4" role="status">
              Looking who decides …
            </p>
          )
        ) : (
          <>
            <div className="flex flex-wrap items-baseline justify-between gap-3 pt-2.5">
              <h1 ref={head}>
                <b className="font-code">{table.name}</b>
                {asked.pseudo}
                {table.text !== '' && (
                  <>
                    {' '}
                    “{table.text.slice(0, 40)}
                    {table.text.length > 40 ? '…' : ''}”
                  </>
                )}
              </h1>
              <span className="text-note text-ink-3">
                {all || contested.length === 0
                  ? count(table.rows.length, 'property').replace('propertys', 'properties')
                  : `${rows.length} of ${table.rows.length} properties: those with two or more sources`}{' '}
                {contested.length > 0 && contested.length < table.rows.length && (
                  <Act onClick={() => setAll(!all)}>{all ? 'show contested ones' : 'show all'}</Act>
                )}
              </span>
            </div>
            <nav className={pathLook} aria-label="Elements around it">
              {table.ancestors.map((one) => (
                <button key={one.path} type="button" className="m" onClick={() => onPick(one.path)}>
                  {one.name}
                </button>
              ))}
              <b className="m">{table.name}</b>
              {table.children.length > 0 && (
                <Menu
                  label="Elements inside it"
                  trigger={
                    <button type="button" className="m">
                      inside …
                    </button>
                  }
                >
                  {table.children.map((one) => (
                    <MenuItem key={one.path} onSelect={() => onPick(one.path)}>
                      {one.name}
                    </MenuItem>
                  ))}
                </Menu>
              )}
              {table.pseudoElements.map((one) => (
                <button
                  key={one}
                  type="button"
                  className="m"
                  aria-pressed={asked.pseudo === one}
                  onClick={() => asked.set({ pseudo: asked.pseudo === one ? undefined : one, peel: [] })}
                >
                  {one}
                </button>
              ))}
            </nav>
            {rows.length === 0 ? (
              <p className="py-4">
                Nothing is said for this element; it has the browser’s defaults and what it inherits.
              </p>
            ) : (
              <DecisionTable
                sources={sources}
                rows={rows}
                peeled={peeled}
                computed={computed}
                onPeel={peel}
                onElement={onPick}
                onFile={onFile}
              />
            )}
            {asked.peeled.length > 0 && (
              <div className="text-table/[inherit] flex items-center gap-4 sticky -bottom-4 bg-panel pt-2.5 pb-3 border-t border-line text-ink-2 flex-wrap [&_p]:flex-1 [&_p]:min-w-50 [&_b]:text-ink">
                <p>
                  <b>{count(asked.peeled.length, 'thing')} peeled.</b> Only this view changes; no file is touched.
                </p>
                <Act onClick={() => asked.set({ peel: [] })}>
                  {asked.peeled.length === 1 ? 'Put it back' : 'Put them back'}
                </Act>
                {drops?.all && (
                  <Act disabled={busy} onClick={() => onAdd(drops.all!.operations)}>
                    From all {drops.all.pages} pages
                  </Act>
                )}
                {drops && drops.here.length > 0 && (
                  <Button next disabled={busy} onClick={() => onAdd(drops.here)}>
                    Drop {asked.peeled.length === 1 ? 'it' : 'them'} from {pageName(page)}
                  </Button>
                )}
              </div>
            )}
          </>
        )}
      </section>
      {table && thread && <PickThread {...thread} />}
    </div>
  );
}
