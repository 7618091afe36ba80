import { ChevronDown, CircleHelp, Search } from 'lucide-react';
import { Link } from 'react-router';
import type { SiteDetailReply, SiteSummaryReply } from '@syndeton/contract';
import { PersonMenu } from '../people/index.ts';

import { ThemeButton } from '../../ui/ThemeButton.tsx';
import { Menu, MenuItem } from '../../ui/Menu.tsx';

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
    <header className="flex items-center gap-(--s2) pr-3 pl-14.5 relative z-3 max-phone:gap-1">
      <Link className="brand" to="/">
        Syndeton
      </Link>
      <Menu
        label="Sites"
        trigger={
          <button type="button" className="site">
            {site?.name ?? '…'} <ChevronDown className="ic" aria-hidden="true" />
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
      <button type="button" className="find" aria-label="Find a page, a rule, or something to do" onClick={onFind}>
        <Search className="ic" aria-hidden="true" />{' '}
        <span className="long">Find a page, a rule, or something to do</span> <kbd>Ctrl K</kbd>
      </button>
      {site && (
        <button
          type="button"
          className="rev"
          aria-label={`Revision r${site.revision}`}
          title="All revisions"
          onClick={onHistory}
        >
          r{site.revision} <ChevronDown className="ic" aria-hidden="true" />
        </button>
      )}
      <PersonMenu site={site} />
      <ThemeButton />
      <button
        type="button"
        className="w-7 h-7 text-ink-2 inline-flex items-center justify-center"
        aria-label="Keys and help"
        title="Keys and help  ?"
        onClick={onHelp}
      >
        <CircleHelp className="ic" aria-hidden="true" />
      </button>
    </header>
  );
}
