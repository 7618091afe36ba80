import {
  type Operation,
  KeptDraft,
  outcomesAfter,
  type KeptOutcomes,
  makeSiteFile,
  SiteChecker,
  SiteProver,
  takenAsMissing,
  withAbsent,
  withDecisions,
  type KeptDraftState,
  type ProofPartner,
  type Site,
} from '@syndeton/core';
import type { RevisionStore } from '../stores/revisionStore.ts';
import { Refusal } from '../http/refusal.ts';
import { filesHere } from './filesHere.ts';
import type { SiteState, Step } from './tasks.ts';

const mostRevisions = 2;
/** One for each set of sheets that was taken as missing lately. */
const mostProvers = 2;

/** A revision read, the draft on it as it was last asked for, and its proof so far. */
export interface KeptRevision {
  readonly site: Site;
  readonly draft: KeptDraft;
  /** By the sheets that are taken as missing. */
  readonly provers: Map<string, SiteProver>;
}

export interface DraftOnRevision extends KeptDraftState {
  readonly before: Site;
  readonly prover: SiteProver;
}

const makeKept = (site: Site, checker: SiteChecker): KeptRevision => ({
  site,
  draft: new KeptDraft(site, checker),
  provers: new Map(),
});

/** What a thread knows of its site: the revisions asked for last, the drafts on them, what was asked about all pages. */
export class SiteStates {
  /** One for all states: what was seen of a page is kept as long as they share it. */
  readonly checker = new SiteChecker();
  private readonly revisions: Pick<RevisionStore, 'manifest' | 'decisions' | 'readBlobs' | 'steps'>;
  private readonly kept = new Map<number, KeptRevision>();
  /** All pages of the state asked about last, as far as they are read. */
  private asked: KeptOutcomes | undefined;
  /** A state that may be the next revision. */
  private coming: Site | undefined;
  /** Of the draft that edits were tried on last. */
  private tried: { readonly site: Site; readonly prover: SiteProver } | undefined;

  private readonly partner: ProofPartner | undefined;

  /** `partner`: proves half of the pages of large revisions. */
  constructor(
    revisions: Pick<RevisionStore, 'manifest' | 'decisions' | 'readBlobs' | 'steps'>,
    partner?: ProofPartner,
  ) {
    this.revisions = revisions;
    this.partner = partner;
  }

  async revision(siteId: string, number: number): Promise<KeptRevision> {
    const { kept } = this;
    const known = kept.get(number);
    // the one asked for last stands last
    kept.delete(number);
    const found = known ?? (await this.take(siteId, number));
    kept.set(number, found);
    if (kept.size > mostRevisions) kept.delete(kept.keys().next().value!);
    return found;
  }

  private async take(siteId: string, number: number): Promise<KeptRevision> {
    const { kept, checker } = this;
    const site = await this.read(siteId, number, this.states());
    this.coming = undefined;
    // a draft is on the newest revision: of earlier ones only the files are still asked for
    for (const [n, earlier] of kept) if (n < number) kept.set(n, makeKept(earlier.site, checker));
    return makeKept(site, checker);
  }

  /** Its files need not be read again when it is the next revision. */
  expect(site: Site): void {
    this.coming = site;
  }

  /** Not kept: for a site that is only compared with. */
  siteOf(siteId: string, number: number): Promise<Site> {
    return this.read(siteId, number, []);
  }

  /** What these states hold already of its files is taken, with all that is known of them. */
  private async read(siteId: string, number: number, states: readonly Site[]): Promise<Site> {
    const { revisions } = this;
    const manifest = await revisions.manifest(siteId, number);
    if (!manifest) throw new Refusal('revision-not-found', `There is no revision r${number} of this site.`);
    const entries = Object.entries(manifest);
    const here = filesHere(manifest, states);
    const blobs = await revisions.readBlobs(entries.flatMap(([path, hash]) => (here.has(path) ? [] : [hash])));
    const files = entries.map(
      ([path, hash]) => [path, here.get(path) ?? makeSiteFile(path, blobs.get(hash)!)] as const,
    );
    return withDecisions({ files: new Map(files) }, await revisions.decisions(siteId, number));
  }

  private states(): readonly Site[] {
    const kept = [...this.kept.values()].reverse();
    return [this.coming, ...kept.map(({ draft }) => draft.newest), ...kept.map(({ site }) => site)].filter(
      (site) => site !== undefined,
    );
  }

  async draftOf(state: SiteState): Promise<DraftOnRevision> {
    const { site, draft, provers } = await this.revision(state.siteId, state.number);
    // what is taken as missing is so before as well
    const absent = [...new Set(takenAsMissing(state.operations))].filter((path) => !site.files.has(path)).sort();
    const key = absent.join('\n');
    let prover = provers.get(key);
    if (!prover) {
      if (provers.size >= mostProvers) provers.clear();
      provers.set(key, (prover = new SiteProver(withAbsent(site, absent), this.partner)));
    }
    return { ...draft.apply(state.operations), before: site, prover };
  }

  /** Proves further edits of a draft: what was read of it for the last one is kept. */
  proverOf({ site, before, prover }: DraftOnRevision): SiteProver {
    if (site === before) return prover;
    if (this.tried?.site !== site) this.tried = { site, prover: new SiteProver(site) };
    return this.tried.prover;
  }

  /** What was done from one revision to another, as far as operations did it. */
  async operationsSince(siteId: string, from: number, to: number): Promise<readonly Operation[]> {
    const out: Operation[] = [];
    for (let n = from + 1; n <= to; n++)
      out.push(...(await this.revisions.steps(siteId, n)).map(({ operation }) => operation));
    return out;
  }

  async outcomesOf(state: SiteState, step: Step): Promise<{ site: Site; outcomes: KeptOutcomes }> {
    const { site } = await this.draftOf(state);
    if (this.asked?.site !== site) this.asked = outcomesAfter(this.asked, site);
    this.asked.readAll(step);
    return { site, outcomes: this.asked };
  }
}
