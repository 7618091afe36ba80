import { Type, type Static } from '@sinclair/typebox';
import { Operations } from './operations.ts';
import { Proof } from './proof.ts';

const Count = Type.Integer({ minimum: 0 });

/** What is left in the pages of a site's newest revision, and what is shared already. Bytes over all pages. */
export const SiteFigures = Type.Object({
  pages: Count,
  sheets: Count,
  otherFiles: Count,
  embeddedRules: Count,
  styleAttributes: Count,
  sharedBytes: Count,
  embeddedBytes: Count,
  attributeBytes: Count,
  presentationalBytes: Count,
});

export const LeftOut = Type.Object({ path: Type.String(), reason: Type.String() });

export const SiteSummary = Type.Object(
  {
    id: Type.String({ format: 'uuid' }),
    name: Type.String(),
    revision: Count,
    message: Type.String(),
    savedAt: Type.String({ format: 'date-time' }),
    figures: SiteFigures,
    draftOperations: Count,
  },
  { $id: 'SiteSummary' },
);

export const Revision = Type.Object({
  number: Count,
  message: Type.String(),
  savedAt: Type.String({ format: 'date-time' }),
  changedFiles: Count,
});

export const SiteFileEntry = Type.Object({ path: Type.String(), kind: Type.String(), bytes: Count });

export const SiteDetail = Type.Object(
  {
    id: Type.String({ format: 'uuid' }),
    name: Type.String(),
    revision: Count,
    revisions: Type.Array(Revision),
    files: Type.Array(SiteFileEntry),
    leftOut: Type.Array(LeftOut),
  },
  { $id: 'SiteDetail' },
);

export const FamilyVersion = Type.Object({
  id: Type.String(),
  pages: Type.Array(Type.String()),
  declarations: Type.Array(Type.Object({ property: Type.String(), value: Type.String(), important: Type.Boolean() })),
  text: Type.String(),
  line: Count,
});

export const Family = Type.Object({
  id: Type.String(),
  label: Type.String(),
  groups: Type.Array(Type.Object({ name: Type.String(), prelude: Type.String() })),
  kind: Type.Union([Type.Literal('rule'), Type.Literal('definition')]),
  versions: Type.Array(FamilyVersion),
  pages: Type.Array(Type.String()),
  stays: Type.Optional(Type.String()),
  order: Count,
  drifted: Type.Array(Type.String()),
});

export const Families = Type.Object({ families: Type.Array(Family) }, { $id: 'Families' });

export const ChangedFile = Type.Object({
  path: Type.String(),
  change: Type.Union([Type.Literal('created'), Type.Literal('edited'), Type.Literal('deleted')]),
  bytesBefore: Count,
  bytesAfter: Count,
  kind: Type.String(),
});

export const DraftStep = Type.Object({
  sentence: Type.String(),
  left: Type.Array(Type.Object({ page: Type.String(), label: Type.String(), reason: Type.String() })),
});

export const Draft = Type.Object(
  {
    base: Count,
    operations: Operations,
    steps: Type.Array(DraftStep),
    changes: Type.Array(ChangedFile),
    /** The sheets as the draft leaves them. */
    sheets: Type.Array(
      Type.Object({
        path: Type.String(),
        bytes: Count,
        rules: Count,
        pages: Type.Array(Type.String()),
        isNew: Type.Boolean(),
      }),
    ),
    /** Set when an operation cannot be carried out on this base; the ones before it stand. */
    problem: Type.Optional(Type.Object({ index: Count, detail: Type.String() })),
  },
  { $id: 'Draft' },
);

export const DraftBody = Type.Object(
  { base: Count, operations: Operations },
  { additionalProperties: false, $id: 'DraftBody' },
);

export const DraftProof = Type.Union(
  [
    Type.Object({ status: Type.Literal('running'), done: Count, total: Count }),
    Type.Object({ status: Type.Literal('done'), seconds: Type.Number(), proof: Proof }),
    Type.Object({ status: Type.Literal('failed'), detail: Type.String() }),
  ],
  { $id: 'DraftProof' },
);

export const ProposalBody = Type.Object(
  {
    base: Count,
    sheet: Type.String({ minLength: 1, maxLength: 400 }),
    pages: Type.Optional(Type.Array(Type.String())),
  },
  { additionalProperties: false, $id: 'ProposalBody' },
);

export const Proposal = Type.Object(
  {
    /** What to line up, in order; empty when nothing can be gathered. */
    operations: Operations,
    rules: Count,
    sheets: Type.Array(Type.String()),
    notes: Type.Array(
      Type.Object({ page: Type.Optional(Type.String()), label: Type.Optional(Type.String()), reason: Type.String() }),
    ),
  },
  { $id: 'Proposal' },
);

export const SaveBody = Type.Object(
  { base: Count, message: Type.Optional(Type.String({ maxLength: 500 })) },
  { additionalProperties: false, $id: 'SaveBody' },
);

export const RestoreBody = Type.Object({ base: Count }, { additionalProperties: false, $id: 'RestoreBody' });

export const SavedRevision = Type.Object({ number: Count, changedFiles: Count }, { $id: 'SavedRevision' });

export const FileText = Type.Object(
  { path: Type.String(), hash: Type.String(), encoding: Type.String(), text: Type.Union([Type.String(), Type.Null()]) },
  { $id: 'FileText' },
);

export const CreatedSite = Type.Object(
  { id: Type.String({ format: 'uuid' }), name: Type.String(), files: Count, leftOut: Type.Array(LeftOut) },
  { $id: 'CreatedSite' },
);

/** RFC 9457, "Problem Details for HTTP APIs"; `code` is stable, `detail` is shown to a person. */
export const Problem = Type.Object(
  { type: Type.String(), title: Type.String(), status: Type.Integer(), code: Type.String(), detail: Type.String() },
  { $id: 'Problem' },
);

export type SiteFiguresReply = Static<typeof SiteFigures>;
export type SiteSummaryReply = Static<typeof SiteSummary>;
export type SiteDetailReply = Static<typeof SiteDetail>;
export type FamilyReply = Static<typeof Family>;
export type FamiliesReply = Static<typeof Families>;
export type DraftReply = Static<typeof Draft>;
export type DraftBodyRequest = Static<typeof DraftBody>;
export type DraftProofReply = Static<typeof DraftProof>;
export type ProposalRequest = Static<typeof ProposalBody>;
export type ProposalReply = Static<typeof Proposal>;
export type SaveRequest = Static<typeof SaveBody>;
export type RestoreRequest = Static<typeof RestoreBody>;
export type SavedRevisionReply = Static<typeof SavedRevision>;
export type FileTextReply = Static<typeof FileText>;
export type CreatedSiteReply = Static<typeof CreatedSite>;
export type ChangedFileReply = Static<typeof ChangedFile>;
export type LeftOutReply = Static<typeof LeftOut>;
export type ProblemReply = Static<typeof Problem>;
