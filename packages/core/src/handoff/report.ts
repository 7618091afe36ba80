import type { SiteCheck } from '../checks/checkSite.ts';
import type { Finding } from '../checks/finding.ts';
import type { PageProof, Proof } from '../proof/proof.ts';
import { changedFiles } from '../source/changeSet.ts';
import type { Site } from '../source/site.ts';
import { surveySite } from '../survey/surveySite.ts';
import { describeTakenAsNothing } from '../values/takenAsNothing.ts';
import { averageWeight, type PageWeight } from './pageWeight.ts';

/** A file that is not what it was. `packed`: bytes as a server that compresses sends them. */
export interface ReportedFile {
  readonly path: string;
  readonly kind: 'page' | 'sheet' | 'other';
  readonly change: 'created' | 'edited' | 'deleted';
  readonly bytesBefore: number;
  readonly bytesAfter: number;
  readonly packedBefore: number;
  readonly packedAfter: number;
}

/** What was saved between the two states: a name, what was done in sentences, what its author noted. */
export interface ReportedRevision {
  readonly number: number;
  readonly message: string;
  readonly savedAt: string;
  readonly steps: readonly string[];
  readonly note: string;
}

/** What the hand-off of a state says about itself, against the state it began with. */
export interface HandoffReport {
  readonly title: string;
  readonly from: string;
  readonly to: string;
  readonly revisions: readonly ReportedRevision[];
  readonly files: readonly ReportedFile[];
  readonly proof: {
    readonly verdict: Proof['verdict'];
    readonly elements: number;
    readonly same: number;
    /** Pages that do not look the same, or of which it cannot be told. */
    readonly pages: readonly PageProof[];
    /** What the proof takes as given, each in a sentence. */
    readonly given: readonly string[];
  };
  /** Of the state handed off. */
  readonly findings: readonly Pick<Finding, 'kind' | 'severity' | 'sentence' | 'places'>[];
  readonly links: { readonly links: number; readonly missing: number };
  readonly weight: { readonly before: PageWeight | undefined; readonly after: PageWeight | undefined };
}

interface About {
  readonly title: string;
  readonly from: string;
  readonly to: string;
  readonly revisions?: readonly ReportedRevision[];
  /** What was found in the state handed off. */
  readonly check: Pick<SiteCheck, 'survey' | 'findings'>;
  /** How many bytes a compressing server sends. */
  readonly packed: (bytes: Uint8Array) => number;
}

/** All of it from the bytes of two states and their proof. */
export function handoffReport(before: Site, after: Site, proof: Proof, about: About): HandoffReport {
  const { packed, title, from, to, revisions = [], check } = about;
  const nothing = new Uint8Array();
  const files = changedFiles(before, after).map(({ path, change }): ReportedFile => {
    const [old, now] = [before.files.get(path), after.files.get(path)];
    const [bytesBefore, bytesAfter] = [old?.bytes ?? nothing, now?.bytes ?? nothing];
    return {
      path,
      kind: (now ?? old)!.kind,
      change,
      bytesBefore: bytesBefore.length,
      bytesAfter: bytesAfter.length,
      packedBefore: old ? packed(bytesBefore) : 0,
      packedAfter: now ? packed(bytesAfter) : 0,
    };
  });
  const { survey, findings } = check;
  const sources = survey.pages.flatMap((page) => page.sources.filter(({ kind }) => kind === 'linked'));
  const missing = [...(after.absent ?? [])].filter((path) => !after.files.has(path));
  return {
    title,
    from,
    to,
    revisions,
    files: [...files].sort((a, b) => rank(a) - rank(b) || (a.path < b.path ? -1 : 1)),
    proof: {
      verdict: proof.verdict,
      elements: proof.elements,
      same: proof.pages.filter(({ verdict }) => verdict === 'same').length,
      pages: proof.pages.filter(({ verdict }) => verdict !== 'same'),
      given: [
        'Scripts and sheets that are not in the site change nothing.',
        'Pages are compared as they are once they have loaded: how they come to it (what is shown while a sheet is on its way, where transitions start from then) is not.',
        'Pages are sent as HTML, pages that end in .xhtml as XML.',
        ...(missing.length === 0 ? [] : [`Sheets that are not here: ${describeTakenAsNothing(missing.sort())}.`]),
      ],
    },
    findings: findings.map(({ kind, severity, sentence, places }) => ({ kind, severity, sentence, places })),
    links: {
      links: sources.length,
      missing: sources.filter(({ problem }) => problem === 'missing' || problem === 'wrong-case').length,
    },
    weight: { before: averageWeight(surveySite(before)), after: averageWeight(survey) },
  };
}

const rank = ({ kind }: ReportedFile): number => (kind === 'sheet' ? 0 : kind === 'page' ? 1 : 2);
