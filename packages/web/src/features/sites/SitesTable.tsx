import { useRef, useState } from 'react';
import { Ellipsis } from 'lucide-react';
import { Link } from 'react-router';
import type { ImportReply, SiteSummaryReply } from '@syndeton/contract';
import { iconLook, squareLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { Menu, MenuItem } from '../../ui/Menu.tsx';
import { count, savedWhen } from '../../ui/format.ts';
import { howFarBound, namesApart } from './howFarBound.ts';
import { RenameField } from './RenameField.tsx';
import { SiteThread } from './SiteThread.tsx';

interface Props {
  readonly sites: readonly SiteSummaryReply[];
  /** Sites on their way in. */
  readonly reading: readonly ImportReply[];
  readonly onStop: (id: string) => void;
  readonly onRename: (id: string, name: string) => void;
  readonly onRemove: (site: SiteSummaryReply) => void;
}

const nameLook = 'block text-brand/5 font-semibold underline-offset-3 hover:underline';

/** The sites that are here: what is done of each, and what is left in its pages. Those being read stand last. */
export function SitesTable({ sites, reading, onStop, onRename, onRemove }: Props) {
  const apart = namesApart(sites);
  return (
    <table className="w-full table-fixed border-collapse text-table max-phone:min-w-190 [&_td]:h-19.5 [&_td]:border-b [&_td]:border-line [&_td]:pr-4 [&_td]:align-middle [&_th]:border-b [&_th]:border-line-2 [&_th]:py-1.25 [&_th]:pr-4 [&_th]:text-left [&_th]:text-note/4.5 [&_th]:font-normal [&_th]:whitespace-nowrap [&_th]:text-ink-3">
      <caption className="sr-only">Sites</caption>
      <colgroup>
        <col />
        <col style={{ width: 66 }} />
        <col style={{ width: 62 }} />
        <col style={{ width: 206 }} />
        <col style={{ width: 196 }} />
        <col style={{ width: 32 }} />
      </colgroup>
      <thead>
        <tr>
          <th>Site</th>
          <th className="text-right!">Pages</th>
          <th className="text-right!">Saved</th>
          <th>What is done</th>
          <th>shared, left in the pages</th>
          <th>
            <span className="sr-only">More</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {sites.map((site) => (
          <SiteRow key={site.id} site={site} apart={apart.get(site.id) ?? ''} onRename={onRename} onRemove={onRemove} />
        ))}
        {reading.map((one) => (
          <ReadingRow key={one.id} one={one} onStop={onStop} />
        ))}
      </tbody>
    </table>
  );
}

function SiteRow({
  site,
  apart,
  onRename,
  onRemove,
}: Pick<Props, 'onRename' | 'onRemove'> & { readonly site: SiteSummaryReply; readonly apart: string }) {
  const [renaming, setRenaming] = useState(false);
  const wanted = useRef(false);
  const bound = howFarBound(site);
  return (
    <tr>
      <td>
        {renaming ? (
          <RenameField
            name={site.name}
            onDone={(name) => {
              setRenaming(false);
              if (name !== undefined && name !== site.name) onRename(site.id, name);
            }}
          />
        ) : (
          <Link className={nameLook} to={`/sites/${site.id}/survey`}>
            {site.name}
            {apart}
          </Link>
        )}
        <span className="text-note text-ink-3 block">
          {site.revision === 1 ? 'brought in' : 'saved'} {savedWhen(site.savedAt)}
          {site.revision === 1 ? '' : `: ${site.message}`}
          {site.draftOperations > 0 ? `; ${count(site.draftOperations, 'operation')} in the draft` : ''}
        </span>
      </td>
      <td className="text-right">{site.figures.pages.toLocaleString('en')}</td>
      <td className="text-right">r{site.revision}</td>
      <td>
        <SiteThread tied={bound.tied} />
        <span className="text-note text-ink-3 block">{bound.words}</span>
      </td>
      <td>
        <LeftBar figures={site.figures} />
        <span className="mt-0.5 block whitespace-nowrap text-ink-2">
          {site.figures.embeddedRules + site.figures.styleAttributes === 0 ? (
            <b className="text-ink">nothing</b>
          ) : (
            <>
              <b className="text-ink">{count(site.figures.embeddedRules, 'rule')}</b>
              {site.figures.styleAttributes > 0 ? `, ${count(site.figures.styleAttributes, 'style attribute')}` : ''}
            </>
          )}
        </span>
      </td>
      <td>
        <Menu
          label={`More for ${site.name}`}
          onClosed={(event) => {
            if (!wanted.current) return;
            // the field can take the focus only when the menu has let go of it
            wanted.current = false;
            event.preventDefault();
            setRenaming(true);
          }}
          trigger={
            <button type="button" className={squareLook} aria-label={`More for ${site.name}${apart}`}>
              <Ellipsis className={iconLook} aria-hidden="true" />
            </button>
          }
        >
          <MenuItem onSelect={() => void (wanted.current = true)}>Rename</MenuItem>
          <MenuItem onSelect={() => onRemove(site)}>Remove</MenuItem>
        </Menu>
      </td>
    </tr>
  );
}

function ReadingRow({ one, onStop }: { readonly one: ImportReply; readonly onStop: (id: string) => void }) {
  const reading = one.status === 'reading';
  return (
    <tr>
      <td>
        <span className={nameLook}>{one.name}</span>
        <span className="text-note text-ink-3 block">
          {reading ? 'being read' : one.status === 'looking' ? 'being looked at' : 'being stored'}
        </span>
      </td>
      <td className="text-right">{one.status === 'reading' ? '–' : one.total.toLocaleString('en')}</td>
      <td className="text-right">–</td>
      <td>
        <div role="status" aria-live="off">
          {one.done.toLocaleString('en')} of {one.total.toLocaleString('en')} {reading ? 'files' : 'pages'}
          <span className="block h-0.75 rounded-[2px] bg-line mt-1.25 w-39.5 [&_i]:block [&_i]:h-0.75 [&_i]:rounded-[2px] [&_i]:bg-ink">
            <i style={{ width: `${one.total === 0 ? 0 : (100 * one.done) / one.total}%` }} />
          </span>
        </div>
      </td>
      <td colSpan={2}>
        <b className="text-ink">{count(one.rules, 'rule')}</b> so far
        <br />
        <Act onClick={() => onStop(one.id)}>Stop reading</Act>
      </td>
    </tr>
  );
}

function LeftBar({ figures }: { readonly figures: SiteSummaryReply['figures'] }) {
  const most = Math.max(
    figures.sharedBytes,
    figures.embeddedBytes + figures.attributeBytes + figures.presentationalBytes,
    1,
  );
  const scale = 80 / most;
  const shared = figures.sharedBytes * scale;
  const embedded = Math.max(figures.embeddedBytes * scale, figures.embeddedBytes > 0 ? 11 : 0);
  const triangles = figures.attributeBytes > 0 ? Math.max(1, Math.round((figures.attributeBytes * scale) / 9.6)) : 0;
  return (
    <svg width="200" height="20" aria-hidden="true" className="block">
      <path className="stroke-ink" d="M84 0V20" />
      {shared > 0 && <rect className="fill-area-linked" x={83 - shared} y="4.5" width={shared} height="11" />}
      {embedded > 0 && (
        <path
          className="fill-area-embed"
          d={`M86 10l5.5 -5.5h${embedded - 11}l5.5 5.5l-5.5 5.5h${-(embedded - 11)}z`}
        />
      )}
      {Array.from({ length: triangles }, (_, i) => (
        <path key={i} className="fill-area-style" d={`M${88 + embedded + i * 9.6} 15l4.5 -10l4.5 10z`} />
      ))}
      {figures.presentationalBytes > 0 && (
        <rect
          className="fill-area-pres"
          x={90 + embedded + triangles * 9.6}
          y="8.5"
          width={Math.max(4, figures.presentationalBytes * scale)}
          height="3"
        />
      )}
    </svg>
  );
}
