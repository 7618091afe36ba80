import { Refusal } from '../../http/refusal.ts';

export const noSuchSite = (id: string): Refusal => new Refusal('site-not-found', `There is no site ${id} here.`);

/** A write was made on a revision that is not the newest any more. */
export const siteChanged = (base: number, newest: number, redo?: string): Refusal =>
  new Refusal(
    'site-changed',
    `This was made on r${base}, but r${newest} was saved meanwhile, in another window or by somebody else. Look at r${newest}, then redo yours on top.`,
    redo,
  );
