import { changedFiles } from '../source/changeSet.ts';
import type { Site } from '../source/site.ts';
import { TouchedPages } from '../survey/touchedPages.ts';
import type { PageProof, Proof } from './proof.ts';

/** The pages that neither changed since nor can reach anything that did, with what was found; lines of what changed are others now. */
export function stillTrue(then: Site, now: Site, proof: Proof): ReadonlyMap<string, PageProof> {
  const changed = changedFiles(then, now).map((one) => one.path);
  const kindOf = (path: string): string => (then.files.get(path) ?? now.files.get(path))!.kind;
  const others = changed.filter((path) => kindOf(path) !== 'page');
  if (others.some((path) => kindOf(path) === 'other')) return new Map();
  const touched = new TouchedPages(then, now, others);
  const pages = new Set(changed);
  return new Map(
    proof.pages.flatMap((page) => {
      const file = now.files.get(page.path);
      const stands =
        file?.text !== undefined && !pages.has(page.path) && !touched.has(file) && !tellsPlaces(page, changed);
      return stands ? [[page.path, page] as const] : [];
    }),
  );
}

const tellsPlaces = ({ causes, doubts, notes }: PageProof, paths: readonly string[]): boolean =>
  causes.length + doubts.length + notes.length > 0 &&
  paths.some((path) => JSON.stringify([causes, doubts, notes]).includes(JSON.stringify(path).slice(1, -1)));
