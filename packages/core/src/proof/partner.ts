import type { Site, SiteFile } from '../source/site.ts';
import { noteNames } from '../survey/elementNames.ts';
import type { PageProof } from './proof.ts';

/** Who proves some of the pages at the same time, in a thread of its own. What it says of a page is what a prover here would say. */
export interface ProofPartner {
  /** Whether it pays to share the pages of this site. */
  helps(before: Site): boolean;
  /** Reads how its share of the pages looks, before it is asked about any state. */
  prepare(before: Site, share: ReadonlySet<string>): void;
  /** Begins to prove these pages, all of its share. */
  begin(before: Site, after: Site, share: ReadonlySet<string>, pages: readonly SiteFile[]): SharedProof;
}

export interface SharedProof {
  /** How many pages are proved by now. */
  done(): number;
  /**
   * Waits so many milliseconds at most; undefined while it goes on, `lost` where nothing will come. A page whose proof asks for
   * what other pages hold is left out.
   */
  wait(milliseconds: number): readonly SharedPage[] | 'lost' | undefined;
  stop(): void;
}

export interface SharedPage {
  readonly proof: PageProof;
  /** `elementNames` of the page as it is after, where it was read. */
  readonly names: readonly string[] | undefined;
}

/** Milliseconds after which the one who waits is told how far it is. */
const waiting = 100;

/** Waits for what was shared, and takes it; nothing where it is lost. */
export function takeShared(
  shared: SharedProof,
  after: Site,
  found: Map<string, PageProof>,
  tell: (more?: number) => void,
): void {
  let said = shared.wait(waiting);
  for (; !said; said = shared.wait(waiting)) tell(shared.done());
  if (said === 'lost') return;
  for (const { proof, names } of said) {
    found.set(proof.path, proof);
    const now = after.files.get(proof.path);
    if (now && names) noteNames(now, names);
  }
  tell();
}
