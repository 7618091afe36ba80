import { ChevronDown, CircleHelp } from 'lucide-react';
import type { SiteDetailReply, SiteSummaryReply } from '@syndeton/contract';
import { headLook, headNameLook, iconLook, squareLook } from '../../ui/looks.ts';
import { Brand } from '../../ui/Brand.tsx';
import { FindButton } from '../../ui/FindButton.tsx';
import { Menu, MenuItem } from '../../ui/Menu.tsx';
import { ThemeButton } from '../../ui/ThemeButton.tsx';
import { PersonMenu } from '../people/index.ts';

interface Props {
  readonly site: SiteDetailReply | undefined;
  readonly sites: readonly SiteSummaryReply[];
  readonly onFind: () => void;
  readonly onHelp: () => void;
  readonly onSite: (id: string) => void;
  readonly onHistory: () => void;
}

/** The head: the site at hand, find, the revision at hand with the way to earlier ones, theme and help. */
export function HeadBar({ site, sites, onFind, onHelp, onSite, onHistory }: Props) {
  return (
    <header className={headLook}>
      <Brand />
      <Menu
        label="Sites"
        trigger={
          <button type="button" className={headNameLook}>
            {site?.name ?? '…'} <ChevronDown className={`${iconLook} size-3.25! text-ink-3`} aria-hidden="true" />
          </button>
        }
      >
        {sites.map((one) => (
          <MenuItem key={one.id} onSelect={() => onSite(one.id)}>
            <span>{one.name}</span>
            <span className="text-note text-ink-3 ml-auto">
              {one.figures.pages} pages, r{one.revision}
            </span>
          </MenuItem>
        ))}
        <MenuItem onSelect={() => onSite('')}>All sites</MenuItem>
      </Menu>
      <FindButton label="Find a page, a rule, or something to do" onClick={onFind} />
      {site && (
        <button
          type="button"
          className="h-7 px-2.5 font-medium whitespace-nowrap"
          aria-label={`Revision r${site.revision}`}
          title="All revisions"
          onClick={onHistory}
        >
          r{site.revision} <ChevronDown className={`${iconLook} size-3.25! text-ink-3`} aria-hidden="true" />
        </button>
      )}
      <PersonMenu site={site} />
      <ThemeButton />
      <button type="button" className={squareLook} aria-label="Keys and help" title="Keys and help  ?" onClick={onHelp}>
        <CircleHelp className={iconLook} aria-hidden="true" />
      </button>
    </header>
  );
}
