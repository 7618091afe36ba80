import { changedFiles } from '../source/changeSet.ts';
import type { Site, SiteFile } from '../source/site.ts';
import { readAlike } from './readAlike.ts';
import { SheetMoves } from './sheetMoves.ts';
import { TouchedPages } from './touchedPages.ts';

/** What of one state of a site is as it was in another. */
export interface UnchangedPages {
  /** Whether the same rules reach the elements of this page, which did not change itself. */
  has(file: SiteFile): boolean;
  /** Of each sheet that changed, where the rules are now that stayed as they were. */
  readonly moves: ReadonlyMap<string, SheetMoves>;
}

/**
 * Undefined where what is taken as given changed as well (which sheets are nowhere, which files are pages), or a place in a changed
 * sheet is not one place for all.
 */
export function unchangedPages(then: Site, now: Site): UnchangedPages | undefined {
  if (!sameSet(then.absent, now.absent) || !sameSet(then.pageTypes, now.pageTypes)) return undefined;
  const isSheet = (path: string): boolean =>
    then.files.get(path)?.kind === 'sheet' || now.files.get(path)?.kind === 'sheet';
  const changed = changedFiles(then, now)
    .map(({ path }) => path)
    .filter(isSheet);
  const touched = new TouchedPages(then, now, changed);
  const moves = new Map<string, SheetMoves>();
  for (const path of changed) {
    const [old, fresh] = [then.files.get(path), now.files.get(path)];
    if (old?.text === undefined || fresh?.text === undefined) continue;
    if (!readAlike(then, old) || !readAlike(now, fresh)) return undefined;
    moves.set(path, new SheetMoves(old.text, fresh.text));
  }
  return { has: (file) => !touched.has(file), moves };
}

const sameSet = (a: ReadonlySet<string> | undefined, b: ReadonlySet<string> | undefined): boolean =>
  (a?.size ?? 0) === (b?.size ?? 0) && [...(a ?? [])].every((one) => b!.has(one));
