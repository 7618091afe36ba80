import { useState } from 'react';
import type { FindingReply, SurveyReply } from '@syndeton/contract';
import { mediaSlip, type LinkPlace, type PathStyle } from '@syndeton/core';
import { sideHeadLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { Field } from '../../ui/Field.tsx';
import { Choice } from '../../ui/Choice.tsx';
import { Mark } from '../../ui/Mark.tsx';
import { Coded } from '../../ui/Coded.tsx';
import { CopiedText } from '../../ui/CopiedText.tsx';
import { Menu, MenuItem } from '../../ui/Menu.tsx';
import { count } from '../../ui/format.ts';
import { Problem } from '../../ui/Said.tsx';
import { placeOf, type LinkColumn, type LinkGrid, type PlaceName } from './linkGrid.ts';
import { tagGroups } from './tagGroups.ts';

interface Props {
  readonly column: LinkColumn;
  readonly grid: LinkGrid;
  readonly survey: SurveyReply;
  readonly scope: readonly string[];
  readonly busy: boolean;
  readonly problem: string | undefined;
  readonly paths: PathStyle;
  readonly onMend: (findings: readonly FindingReply[]) => void;
  readonly onLink: (place: LinkPlace) => void;
  readonly onUnlink: () => void;
  readonly onMove: (place: LinkPlace) => void;
  readonly onMedia: (media: string) => void;
  readonly onPaths: (style: PathStyle) => void;
  readonly onRename: (to: string) => void;
  readonly onImportsToLinks: () => void;
  readonly onToImports: () => void;
  readonly onClose: () => void;
}

const places: readonly (readonly [PlaceName, string])[] = [
  ['first', 'first in the head'],
  ['before-blocks', 'before the embedded block'],
  ['last', 'last in the head'],
];

const panelRowLook = 'grid grid-cols-[58px_minmax(0,1fr)] items-start border-b border-line py-2 text-ink-2';

/** One sheet: where its links stand, how they name it, for which medium, and the tag each page gets. */
export function LinkPanel(props: Props) {
  const { column, grid, survey, scope, paths } = props;
  const cells = scope.map((page) => [page, column.cells.get(page)] as const);
  const having = cells.filter(([, cell]) => cell?.position !== undefined && !cell.imported);
  const lacking = cells.filter(([, cell]) => cell?.position === undefined);
  const imported = cells.some(([, cell]) => cell?.imported);
  const rooted = having.length > 0 && having.every(([, cell]) => cell!.says.includes('from the site root'));
  const style = typeof paths === 'object' ? 'host' : having.length > 0 ? (rooted ? 'root' : 'page') : paths;
  const inScope = new Set(scope);
  const media = /^(all media|several media|)$/.test(column.media) ? '' : column.media;
  const tags = tagGroups(
    survey.pages.filter((page) => inScope.has(page.path) && !page.opaque),
    column.path,
    style === 'host' ? paths : style,
    media,
  );
  return (
    <aside
      className="text-table bg-ground border-l border-line-2 border-t pt-3 pr-4 pb-4 pl-4.5 overflow-auto min-w-0"
      aria-label={`Links to ${column.path}`}
    >
      <h2 className="mb-2 flex items-center gap-1.75 text-body/5.5!">
        <Mark kind="linked" hidden /> <span className="m wrap-anywhere">{column.path}</span>
        <Act className="ml-auto font-normal!" onClick={props.onClose}>
          Close
        </Act>
      </h2>
      {props.problem !== undefined && <Problem className="pb-2">{props.problem}</Problem>}
      {column.exists && (
        <>
          <div className={panelRowLook}>
            <span>Place</span>
            <Choice
              className="text-ink"
              label="Place in the head"
              value={placeOf(column, grid, scope)}
              options={places}
              onChange={(at) => (having.length > 0 ? props.onMove({ at }) : props.onLink({ at }))}
            />
          </div>
          <div className={panelRowLook}>
            <span>Path</span>
            <div>
              <Choice
                className="text-ink"
                label="Path"
                value={style}
                options={[
                  ['page', 'from the page'],
                  ['root', 'from the site root'],
                  ['host', 'with the host name'],
                ]}
                onChange={(next) => (next === 'host' ? props.onPaths({ host: hostOf(paths) }) : props.onPaths(next))}
              />
              {style === 'host' && <HostField paths={paths} onPaths={props.onPaths} />}
            </div>
          </div>
          <div className={panelRowLook}>
            <span>Medium</span>
            <MediaField media={column.media} disabled={having.length === 0} onMedia={props.onMedia} />
          </div>
          <div className="flex flex-wrap gap-y-1 gap-x-4 py-2.25 border-b border-line empty:hidden">
            {lacking.length > 0 && (
              <Act onClick={() => props.onLink({ at: 'before-blocks' })}>
                Link it on {lacking.length === scope.length ? `all ${scope.length}` : `the other ${lacking.length}`}
              </Act>
            )}
            {column.mends.length > 0 && (
              <Act onClick={() => props.onMend(column.mends)}>Mend {column.mends.length}</Act>
            )}
            {having.length > 0 && <Act onClick={props.onUnlink}>Unlink from {count(having.length, 'page')}</Act>}
            {imported && <Act onClick={props.onImportsToLinks}>Turn imports into links</Act>}
            {having.length > 0 && <Act onClick={props.onToImports}>Turn links into imports</Act>}
          </div>
          <Rename path={column.path} onRename={props.onRename} />
        </>
      )}
      {!column.exists && having.length + column.cells.size > 0 && (
        <div className="flex flex-wrap gap-y-1 gap-x-4 py-2.25 border-b border-line empty:hidden">
          {column.mends.length > 0 && <Act onClick={() => props.onMend(column.mends)}>Mend {column.mends.length}</Act>}
          <Act onClick={props.onUnlink}>Take the link out</Act>
        </div>
      )}
      {column.exists && (
        <>
          <h3 className={sideHeadLook}>The tag each page gets</h3>
          {tags.slice(0, 12).map(({ tag, words }) => (
            <CopiedText key={tag} text={tag} words={words} />
          ))}
        </>
      )}
    </aside>
  );
}

const hostOf = (paths: PathStyle): string => (typeof paths === 'object' ? paths.host : 'https://www.example.org');

function HostField({ paths, onPaths }: { readonly paths: PathStyle; readonly onPaths: (style: PathStyle) => void }) {
  const [host, setHost] = useState(hostOf(paths));
  return (
    <form
      className="flex gap-2 pt-1 pl-5"
      onSubmit={(event) => {
        event.preventDefault();
        onPaths({ host: host.trim() });
      }}
    >
      <Field aria-label="Address the site stands at" value={host} onChange={(event) => setHost(event.target.value)} />
      <Act type="submit">Use it</Act>
    </form>
  );
}

function MediaField({
  media,
  disabled,
  onMedia,
}: {
  readonly media: string;
  readonly disabled: boolean;
  readonly onMedia: (media: string) => void;
}) {
  const [typing, setTyping] = useState<string | undefined>(undefined);
  const slip = typing === undefined ? undefined : mediaSlip(typing);
  if (typing !== undefined)
    return (
      <form
        className="flex flex-wrap gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          setTyping(undefined);
          onMedia(typing);
        }}
      >
        {/* a chosen menu item asks for it */}
        <Field
          aria-label="Media query"
          autoFocus
          aria-invalid={slip !== undefined}
          value={typing}
          onChange={(event) => setTyping(event.target.value)}
        />
        <Act type="submit">Set</Act>
        {slip && (
          <p className="text-note text-ink-3">
            <span className="font-medium text-error">
              <Coded text={slip.sentence} />
            </span>{' '}
            {slip.right !== undefined && <Act onClick={() => setTyping(slip.right)}>Make it {slip.right}</Act>}
          </p>
        )}
      </form>
    );
  return (
    <Menu
      label="Medium"
      trigger={
        <Act className="justify-self-start" disabled={disabled}>
          {media === '' || media === 'all media' ? 'all' : media}
        </Act>
      }
    >
      {['all', 'screen', 'print'].map((name) => (
        <MenuItem key={name} onSelect={() => onMedia(name)}>
          {name}
        </MenuItem>
      ))}
      <MenuItem onSelect={() => setTyping('(min-width: 40em)')}>a media query …</MenuItem>
    </Menu>
  );
}

function Rename({ path, onRename }: { readonly path: string; readonly onRename: (to: string) => void }) {
  const [name, setName] = useState(path);
  return (
    <form
      className={panelRowLook}
      onSubmit={(event) => {
        event.preventDefault();
        onRename(name.trim());
      }}
    >
      <span>Name</span>
      <span className="flex gap-2">
        <Field
          aria-label="Name and folder of the sheet"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <Act type="submit" disabled={name.trim() === path}>
          Rename
        </Act>
      </span>
    </form>
  );
}
