import { isAbsent, type Site } from '../source/site.ts';
import type { Target } from './urls.ts';

/** Whether somebody said of a sheet that is not here that it says nothing about elements: it is nowhere, or holds fonts alone. */
export const isTakenAsNothing = (site: Site, target: Target): boolean =>
  target.kind === 'site'
    ? isAbsent(site, target.path)
    : target.kind === 'remote' && (site.absent?.has(target.url) ?? false);

/** Whether the name of a sheet is an address outside the site. */
export const isRemoteAddress = (name: string): boolean => /^(?:[a-z][a-z0-9+.-]*:|[\\/]{2})/i.test(name);

/** What such a sheet is taken to be. */
export const wordsForNothing = (name: string): string =>
  isRemoteAddress(name) ? "saying nothing about these pages' elements" : 'missing on the server too';

/** What is said about such sheets, for the sentence that names what a proof takes as given. Empty where nothing was. */
export function describeTakenAsNothing(names: readonly string[]): string {
  const groups = [names.filter((name) => !isRemoteAddress(name)), names.filter(isRemoteAddress)];
  const parts = groups.flatMap((group) =>
    group.length === 0 ? [] : [`${group.join(', ')} ${wordsForNothing(group[0]!)}`],
  );
  return parts.join('; ');
}
