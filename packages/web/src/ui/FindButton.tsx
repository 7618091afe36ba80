import { Search } from 'lucide-react';
import { iconLook } from './looks.ts';

/** What looks like a field and opens the finder; where there is no room, a glass. */
export const FindButton = ({ label, onClick }: { readonly label: string; readonly onClick: () => void }) => (
  <button
    type="button"
    className="ml-auto flex h-7 w-99.5 min-w-30 items-center gap-2 overflow-hidden rounded-md border border-line-2 bg-panel px-2.5 text-left text-table/[inherit] whitespace-nowrap text-ink-3 max-[1280px]:w-86.5 max-phone:w-7 max-phone:min-w-7 max-phone:flex-none max-phone:px-1.5"
    aria-label={label}
    onClick={onClick}
  >
    <Search className={iconLook} aria-hidden="true" /> <span className="max-phone:hidden">{label}</span>{' '}
    <kbd className="ml-auto max-phone:hidden">Ctrl K</kbd>
  </button>
);
