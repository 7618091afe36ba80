import { KeptOutcomes, type Staying } from '../precedence/keptOutcomes.ts';
import { SheetMoves } from '../precedence/sheetMoves.ts';
import { changedFiles } from '../source/changeSet.ts';
import type { Site } from '../source/site.ts';
import { Reach } from './reach.ts';

/**
 * The outcomes of a state of a site, going on from those of another: only pages are read that changed, or that may name a changed
 * sheet and hold what its changed rules ask for. `last` gives its tables away and must not be asked again.
 */
export function outcomesAfter(last: KeptOutcomes | undefined, site: Site): KeptOutcomes {
  const stays = last && !last.hasGrown && whatStays(last.site, site);
  return new KeptOutcomes(site, stays ? { last, stays } : undefined);
}

/** Undefined where what is taken as given changed as well: which sheets are nowhere, which files are pages. */
function whatStays(then: Site, now: Site): Staying | undefined {
  if (!sameSet(then.absent, now.absent) || !sameSet(then.pageTypes, now.pageTypes)) return undefined;
  const isSheet = (path: string): boolean =>
    then.files.get(path)?.kind === 'sheet' || now.files.get(path)?.kind === 'sheet';
  const changed = changedFiles(then, now)
    .map(({ path }) => path)
    .filter(isSheet);
  const reach = new Reach(then, now, changed);
  const moves = new Map<string, SheetMoves>();
  for (const path of changed) {
    const [old, fresh] = [then.files.get(path)?.text, now.files.get(path)?.text];
    if (old === undefined || fresh === undefined) continue;
    const one = new SheetMoves(old, fresh);
    if (!one.movesNothing) moves.set(path, one);
  }
  return { page: (file) => !reach.from(file), moves };
}

const sameSet = (a: ReadonlySet<string> | undefined, b: ReadonlySet<string> | undefined): boolean =>
  (a?.size ?? 0) === (b?.size ?? 0) && [...(a ?? [])].every((one) => b!.has(one));
