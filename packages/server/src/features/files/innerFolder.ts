import type { ReadArchive } from '../../archive/readArchive.ts';

/** What stands before an archive's paths: nothing for the site's own folder, and for one whose files stand in the site without it. */
export const innerFolder = (
  read: ReadArchive,
  site: { readonly prefix: string },
  isKnown: (path: string) => boolean,
): string => (read.prefix === site.prefix || [...read.files.keys()].some(isKnown) ? '' : read.prefix);
