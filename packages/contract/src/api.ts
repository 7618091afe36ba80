import { PlanSettings } from '@syndeton/core';
import { Type, type Static } from '@sinclair/typebox';
import { Operation, Operations } from './operations.ts';
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
  /** What waits to be settled; absent for revisions saved before this was counted. */
  waiting: Type.Optional(Type.Object({ drifted: Count, links: Count, overrides: Count, findings: Count })),
});

/** A file that was not taken in, and why. With `kept` its bytes are here and it can be taken in later. */
export const LeftOut = Type.Object({ path: Type.String(), reason: Type.String(), kept: Type.Boolean() });

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
  /** What its operations did, in order; none where files came in some other way. */
  steps: Type.Array(Type.String()),
  /** What its author wrote about a change of look. */
  note: Type.String(),
  /** Who saved it; empty where there are no accounts. */
  by: Type.String(),
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
    /** Grows with every change of the draft; a write names the one it was made on. */
    version: Count,
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
    /** Sheets that pages ask for and that count as nothing: they are on no server. */
    missing: Type.Array(Type.String()),
    /** What is wrong with the text of sheets as the draft changes them, and was not before. */
    mistakes: Type.Array(Type.Object({ path: Type.String(), line: Count, sentence: Type.String() })),
    /** Set when an operation cannot be carried out on this base; the ones before it stand. */
    problem: Type.Optional(Type.Object({ index: Count, detail: Type.String() })),
  },
  { $id: 'Draft' },
);

export const DraftBody = Type.Object(
  { base: Count, version: Count, operations: Operations },
  { additionalProperties: false, $id: 'DraftBody' },
);

/** What came too late, by the name it was refused with, done again on the draft as it is now. */
export const RedoBody = Type.Object(
  { redo: Type.String({ format: 'uuid' }) },
  { additionalProperties: false, $id: 'RedoBody' },
);

export const DraftProof = Type.Union(
  [
    Type.Object({ status: Type.Literal('running'), done: Count, total: Count }),
    Type.Object({ status: Type.Literal('done'), seconds: Type.Number(), proof: Proof }),
    Type.Object({ status: Type.Literal('failed'), detail: Type.String() }),
  ],
  { $id: 'DraftProof' },
);

export const EffectBody = Type.Object(
  { base: Count, version: Count, operations: Operations },
  { additionalProperties: false, $id: 'EffectBody' },
);

/** A plan reads the pages, then proves one state of the site after the other. */
export const PlanProgress = Type.Object(
  { step: Type.Union([Type.Literal('reading'), Type.Literal('proving')]), done: Count, total: Count },
  { $id: 'PlanProgress' },
);

export const ProposalBody = Type.Object(
  {
    base: Count,
    sheet: Type.String({ minLength: 1, maxLength: 400 }),
    pages: Type.Optional(Type.Array(Type.String())),
    settings: Type.Optional(PlanSettings),
  },
  { additionalProperties: false, $id: 'ProposalBody' },
);

export const Proposal = Type.Object(
  {
    /** What to put in the draft, in order; empty when nothing can be gathered. */
    operations: Operations,
    rules: Count,
    sheets: Type.Array(
      Type.Object({
        path: Type.String(),
        rules: Count,
        pages: Type.Array(Type.String()),
        /** Why it is a sheet of its own. */
        why: Type.Optional(Type.String()),
      }),
    ),
    /** Sheets that pages ask for and the site has not: it is not known whether they are anywhere. */
    missing: Type.Array(
      Type.Object({ path: Type.String(), isRemote: Type.Boolean(), pages: Type.Array(Type.String()) }),
    ),
    /** Changes of look that make the sheet simpler; each goes ahead of the plan, which is made again. */
    trades: Type.Array(
      Type.Object({
        operation: Operation,
        label: Type.String(),
        pages: Type.Array(Type.String()),
        others: Count,
        properties: Type.Array(Type.String()),
        saves: Type.Object({ marks: Count, rules: Count, declarations: Count }),
        /** Of style attributes: the values that give way, the one they take, and how many elements that changes. */
        scale: Type.Optional(Type.Object({ from: Type.Array(Type.String()), to: Type.String(), elements: Count })),
      }),
    ),
    /** What stays in the pages, and why. */
    stays: Type.Array(
      Type.Object({
        page: Type.String(),
        line: Count,
        kind: Type.Union([Type.Literal('block'), Type.Literal('attribute'), Type.Literal('presentational')]),
        code: Type.String(),
        reason: Type.String(),
      }),
    ),
  },
  { $id: 'Proposal' },
);

export const SaveBody = Type.Object(
  {
    base: Count,
    version: Count,
    message: Type.Optional(Type.String({ maxLength: 500 })),
    /** Why pages may look different. */
    note: Type.Optional(Type.String({ maxLength: 5000 })),
  },
  { additionalProperties: false, $id: 'SaveBody' },
);

/** What the draft is made on, and its version: another one, and somebody changed it. */
export const DraftVersion = Type.Object({ base: Count, version: Count }, { $id: 'DraftVersion' });

export const RestoreBody = Type.Object({ base: Count }, { additionalProperties: false, $id: 'RestoreBody' });

export const RevisionWordsBody = Type.Object(
  {
    message: Type.Optional(Type.String({ minLength: 1, maxLength: 500, pattern: '\\S' })),
    note: Type.Optional(Type.String({ maxLength: 5000 })),
  },
  { additionalProperties: false, minProperties: 1, $id: 'RevisionWordsBody' },
);

/** Which operation of a revision is to be taken out of the past, and the newest revision. */
export const WithoutBody = Type.Object(
  { base: Count, operation: Type.Integer({ minimum: 0, maximum: 100_000 }) },
  { additionalProperties: false, $id: 'WithoutBody' },
);

export const SavedRevision = Type.Object({ number: Count, changedFiles: Count }, { $id: 'SavedRevision' });

export const FileText = Type.Object(
  { path: Type.String(), hash: Type.String(), encoding: Type.String(), text: Type.Union([Type.String(), Type.Null()]) },
  { $id: 'FileText' },
);

export const CreatedSite = Type.Object(
  { id: Type.String({ format: 'uuid' }), name: Type.String(), files: Count, leftOut: Type.Array(LeftOut) },
  { $id: 'CreatedSite' },
);

/** A site on its way in: figures as they come. */
export const Import = Type.Object(
  {
    id: Type.String({ format: 'uuid' }),
    name: Type.String(),
    status: Type.Union(
      (['reading', 'looking', 'storing', 'done', 'failed', 'stopped', 'interrupted'] as const).map((s) =>
        Type.Literal(s),
      ),
    ),
    /** Files unpacked while reading, pages looked at afterwards. */
    done: Count,
    total: Count,
    rules: Count,
    leftOut: Type.Array(LeftOut),
    /** The site, once it is there. */
    siteId: Type.Optional(Type.String()),
    /** Why it failed. */
    detail: Type.Optional(Type.String()),
  },
  { $id: 'Import' },
);

export const RenameBody = Type.Object(
  { name: Type.String({ minLength: 1, maxLength: 200, pattern: '\\S' }) },
  { additionalProperties: false, $id: 'RenameBody' },
);

export const RemoveFilesBody = Type.Object(
  { base: Count, paths: Type.Array(Type.String(), { minItems: 1, maxItems: 10_000 }) },
  { additionalProperties: false, $id: 'RemoveFilesBody' },
);

export const ReadAsPagesBody = Type.Object(
  {
    base: Type.Integer({ minimum: 1 }),
    endings: Type.Array(Type.String({ pattern: '^[a-z0-9]{1,10}$', examples: ['php'] }), { minItems: 1, maxItems: 20 }),
  },
  { additionalProperties: false, $id: 'ReadAsPagesBody' },
);

export const TakeInBody = Type.Object(
  { base: Count, path: Type.String() },
  { additionalProperties: false, $id: 'TakeInBody' },
);

/** A new revision made of files added, replaced or removed. */
export const ChangedSite = Type.Object(
  {
    number: Count,
    added: Type.Array(Type.String()),
    replaced: Type.Array(Type.String()),
    removed: Type.Array(Type.String()),
    leftOut: Type.Array(LeftOut),
    /** Pages among them that do not link what the pages beside them link. */
    lacking: Type.Array(Type.Object({ page: Type.String(), sheets: Type.Array(Type.String()) })),
  },
  { $id: 'ChangedSite' },
);

/** What became of the site somewhere else, against its newest revision. */
export const OutsideChanges = Type.Object(
  {
    same: Count,
    changed: Type.Array(Type.String()),
    fresh: Type.Array(Type.String()),
    gone: Type.Array(Type.String()),
    /** Files of the same bytes under another path. */
    moved: Type.Array(Type.Object({ from: Type.String(), to: Type.String() })),
    /** As they were in an earlier revision: what was saved since has not come there. */
    older: Type.Array(Type.Object({ path: Type.String(), revision: Count })),
  },
  { $id: 'OutsideChanges' },
);

/** RFC 9457, "Problem Details for HTTP APIs"; `code` is stable, `detail` is shown to a person. */
export const Problem = Type.Object(
  {
    type: Type.String(),
    title: Type.String(),
    status: Type.Integer(),
    code: Type.String(),
    detail: Type.String(),
    /** Set when a change of the draft came too late: what to name to have it done again on top. */
    redo: Type.Optional(Type.String({ format: 'uuid' })),
  },
  { $id: 'Problem' },
);

export type SiteFiguresReply = Static<typeof SiteFigures>;
export type SiteSummaryReply = Static<typeof SiteSummary>;
export type SiteDetailReply = Static<typeof SiteDetail>;
export type DraftReply = Static<typeof Draft>;
export type DraftBodyRequest = Static<typeof DraftBody>;
export type RedoRequest = Static<typeof RedoBody>;
export type DraftProofReply = Static<typeof DraftProof>;
export type ProposalRequest = Static<typeof ProposalBody>;
export type PlanSettingsRequest = PlanSettings;
export type EffectRequest = Static<typeof EffectBody>;
export type PlanProgressReply = Static<typeof PlanProgress>;
export type ProposalReply = Static<typeof Proposal>;
export type SaveRequest = Static<typeof SaveBody>;
export type RevisionWordsRequest = Static<typeof RevisionWordsBody>;
export type WithoutRequest = Static<typeof WithoutBody>;
export type RestoreRequest = Static<typeof RestoreBody>;
export type SavedRevisionReply = Static<typeof SavedRevision>;
export type FileTextReply = Static<typeof FileText>;
export type CreatedSiteReply = Static<typeof CreatedSite>;
export type ChangedFileReply = Static<typeof ChangedFile>;
export type LeftOutReply = Static<typeof LeftOut>;
export type ProblemReply = Static<typeof Problem>;
export type ImportReply = Static<typeof Import>;
export type RenameRequest = Static<typeof RenameBody>;
export type RemoveFilesRequest = Static<typeof RemoveFilesBody>;
export type ReadAsPagesRequest = Static<typeof ReadAsPagesBody>;
export type TakeInRequest = Static<typeof TakeInBody>;
export type OutsideChangesReply = Static<typeof OutsideChanges>;
export type DraftVersionReply = Static<typeof DraftVersion>;
export type ChangedSiteReply = Static<typeof ChangedSite>;
