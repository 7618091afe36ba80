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

/** The head of a list beside or under the work, with its number. */
export const sideHeadLook =
  'text-table font-bold mt-2.5 mb-0.75 [&_span]:font-normal [&_span]:text-ink-3 [&_span]:ml-1.5';

/** The window: head, thread, work, draft bar. */
export const frameLook =
  'grid grid-cols-[minmax(0,1fr)] grid-rows-[var(--h-head)_var(--h-thread)_minmax(0,1fr)_auto] h-full relative min-w-80 max-phone:grid-rows-[var(--h-head)_auto_minmax(0,1fr)_auto] max-phone:overflow-hidden';

/** Its head. */
export const headLook = 'flex items-center gap-(--s2) pr-3 pl-14.5 relative z-3 max-phone:gap-1';

/** What stands beside our name in it. */
export const headNameLook = 'ml-3.5 truncate font-medium text-ink-2 max-phone:ml-1 max-phone:min-w-0';

/** A button that is a picture alone. */
export const squareLook = 'w-7 h-7 text-ink-2 inline-flex items-center justify-center';

/** Something a plan asks or offers, before what it is about. */
export const askingLook =
  'text-table/[inherit] border border-line-2 rounded-sm bg-panel py-2.5 px-3.5 mt-2 mr-5 mb-3 [&_ul]:my-1.5 [&_ul]:mx-0 [&_li]:py-0.5';

/** A row of a form: what it is, its value, what can be done. */
export const formRowLook = 'grid grid-cols-[136px_minmax(0,1fr)_auto] gap-y-0.5 gap-x-3 items-center';

/** The well behind a rendered page. */
export const wellLook =
  'bg-sunk px-3 pb-3 relative overflow-hidden border-r border-line-2 flex flex-col min-h-0 max-phone:h-[70vh]';

/** A sheet’s name over its column. */
export const sheetHeadLook = 'text-table/[inherit] flex items-center gap-1.5 max-w-full [&_b]:truncate';

/** What a rendered page is shown with: its width, medium and states, above it. */
export const setupLook =
  'flex h-9.5 flex-none items-center justify-between text-table/[inherit] text-ink-2 max-phone:h-auto max-phone:min-h-9.5 max-phone:flex-wrap [&_b]:font-medium [&_b]:text-ink';

/** What a rendered page lies on. */
export const paperLook =
  'relative min-h-0 flex-1 overflow-hidden rounded-t-sm bg-paper ring ring-line-2 [&_iframe]:absolute [&_iframe]:top-0 [&_iframe]:left-0 [&_iframe]:size-full [&_iframe]:border-0 [&_iframe]:bg-[Canvas] [&_iframe]:scheme-light';

/** A box round what differs, with its number. */
export const outlineLook =
  'pointer-events-none absolute z-2 rounded-sm border-2 border-ink ring ring-panel [&_span]:absolute [&_span]:-top-0.5 [&_span]:-right-0.5 [&_span]:min-w-4.25 [&_span]:rounded-tr-sm [&_span]:rounded-bl-sm [&_span]:bg-ink [&_span]:px-0.75 [&_span]:text-center [&_span]:text-note/4.25 [&_span]:font-semibold [&_span]:text-panel';

/** Words that open why something is so. */
export const whyLook =
  'border-b border-dotted border-ink-3 text-left leading-[inherit] hover:border-solid hover:text-ink';

/** A word of a sentence that can be written over. */
export const askedLook =
  'max-w-full border-b-[1.5px] border-ink bg-transparent px-0.5 font-code font-semibold text-ink';

/** What an edit does, below what is edited. */
export const effectLook = 'mt-2 border-t border-line-2 pt-3';

/** A row of a short list: what it is, and what can be done. */
export const listRowLook =
  'grid grid-cols-[1fr_auto] items-start gap-3 border-t border-line py-1.25 text-table/4.25 text-ink-2 [&_.name]:wrap-anywhere [&_code]:wrap-anywhere [&_code]:text-ink';

/** A table of what leaves: what it is, a figure, words, an act. */
export const leavingLook =
  'mb-4.5 w-full border-collapse text-table [&_td]:border-t [&_td]:border-line [&_td]:py-1.25 [&_td]:pr-3 [&_td:last-child]:pr-0 [&_td:last-child]:text-right';

/** A picture beside words, as tall as they are. */
export const iconLook = 'inline-block size-3.75 flex-none stroke-[1.9] align-[-2.5px]';

/** The mark of a source. */
export const markLook = 'inline-block size-2.5 flex-none overflow-visible align-[-0.5px]';

/** A row of a menu. */
export const menuRowLook =
  'flex cursor-pointer items-baseline gap-2.5 rounded-sm px-2 py-1.25 outline-none data-highlighted:bg-picked data-[selected=true]:bg-picked';

/** The thread, where it lies along something. */
export const threadLook = 'stroke-thread stroke-[2.6]';

/** Over the frame, behind nothing; on a phone of it only our mark. */
export const threadBoxLook =
  'pointer-events-none absolute top-0 left-0 z-2 overflow-visible max-phone:[&>:not(:last-child)]:hidden';

/** The turns of a knot that is tied. */
export const turnLook = 'stroke-thread stroke-[4.7]';

/** What floats over everything and is answered or closed first. */
export const boxLook =
  'fixed left-1/2 z-21 -translate-x-1/2 overflow-auto rounded-[9px] bg-raised shadow-[0_0_0_1px_var(--line-2),var(--float)]';

/** As large as what is asked. */
export const smallBoxLook = 'top-[18%] max-h-[70vh] w-[min(520px,calc(100vw-32px))]';

/** A strand from a source, in its colour. */
export const strandLook: Readonly<Record<string, string>> = {
  linked: 'stroke-src-linked',
  imported: 'stroke-src-linked',
  embedded: 'stroke-src-embed',
  attribute: 'stroke-src-style',
  presentational: 'stroke-src-pres',
  browser: 'stroke-src-default',
  initial: 'stroke-src-default',
};
