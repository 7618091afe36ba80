/** How pieces look that more than one element can be: a link or a summary may be an act, a list to choose from a field. */

/** What one can do, in words. */
export const actLook =
  'text-table/[inherit] font-medium whitespace-nowrap text-ink underline decoration-line-2 decoration-1 underline-offset-3 hover:decoration-ink disabled:text-ink-3 disabled:no-underline';

export const buttonLook = 'h-7 rounded-md border px-3 text-table/[inherit] whitespace-nowrap [&_kbd]:ml-1.5';

/** The one thing to do next takes the accent. */
export const nextLook =
  'border-thread bg-thread font-semibold text-on-thread disabled:opacity-60 [&_kbd]:text-current [&_kbd]:opacity-85';

export const plainLook = 'border-line-2 bg-panel font-medium hover:enabled:border-ink-3 disabled:text-ink-3';

export const fieldLook =
  'h-7 w-full rounded-sm border border-line-2 bg-panel px-2 font-code text-code/6.5 aria-[invalid=true]:border-error';

/** The sentence a station opens with. */
export const sayLook = 'text-say font-[420] tracking-[-0.003em] text-ink-2 [&_b]:text-ink';
