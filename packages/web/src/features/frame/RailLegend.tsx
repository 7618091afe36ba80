import type { ReactNode } from 'react';

/** What the marks in the list of pages mean, under it: marks and words in two columns. */
export const RailLegend = ({ label, children }: { readonly label: string; readonly children: ReactNode }) => (
  <div
    className="grid flex-none grid-cols-[auto_1fr] gap-x-1.5 gap-y-0.5 border-t border-line pt-1.75 pr-0.5 pb-2 pl-4 text-note text-ink-2 [&_svg]:mr-0.75"
    role="group"
    aria-label={label}
  >
    {children}
  </div>
);
