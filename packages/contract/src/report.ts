import { Type, type Static } from '@sinclair/typebox';
import { PageProof, Proof } from './proof.ts';

const Count = Type.Integer({ minimum: 0 });

const ReportedFile = Type.Object({
  path: Type.String(),
  kind: Type.Union([Type.Literal('page'), Type.Literal('sheet'), Type.Literal('other')]),
  change: Type.Union([Type.Literal('created'), Type.Literal('edited'), Type.Literal('deleted')]),
  bytesBefore: Count,
  bytesAfter: Count,
  /** As a server that compresses sends them. */
  packedBefore: Count,
  packedAfter: Count,
});

/** Bytes of an average page. */
const PageWeight = Type.Object({
  markup: Type.Number(),
  embedded: Type.Number(),
  attributes: Type.Number(),
  sheets: Type.Number(),
});

/** What the hand-off of a state says about itself: `GET …/report` and `syndeton report --json`. */
export const Report = Type.Object(
  {
    title: Type.String(),
    from: Type.String(),
    to: Type.String(),
    revisions: Type.Array(
      Type.Object({
        number: Count,
        message: Type.String(),
        savedAt: Type.String(),
        steps: Type.Array(Type.String()),
        note: Type.String(),
      }),
    ),
    files: Type.Array(ReportedFile),
    proof: Type.Object({
      verdict: Proof.properties.verdict,
      elements: Count,
      same: Count,
      pages: Type.Array(PageProof),
      given: Type.Array(Type.String()),
    }),
    findings: Type.Array(
      Type.Object({
        kind: Type.String(),
        severity: Type.Union([Type.Literal('breaks'), Type.Literal('wrong'), Type.Literal('note')]),
        sentence: Type.String(),
        places: Type.Array(Type.Object({ path: Type.String(), line: Count, column: Count })),
      }),
    ),
    links: Type.Object({ links: Count, missing: Count }),
    weight: Type.Object({ before: Type.Optional(PageWeight), after: Type.Optional(PageWeight) }),
  },
  { $id: 'Report' },
);

export type ReportReply = Static<typeof Report>;
