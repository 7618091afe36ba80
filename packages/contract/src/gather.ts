import { Type, type Static } from '@sinclair/typebox';
import { Proof } from './proof.ts';

/** What `syndeton gather --json` prints. */
export const GatherReport = Type.Object(
  {
    sheets: Type.Array(
      Type.Object({
        path: Type.String(),
        rules: Type.Integer(),
        bytes: Type.Integer(),
        pages: Type.Array(Type.String()),
      }),
    ),
    written: Type.Boolean(),
    rules: Type.Integer(),
    pages: Type.Array(
      Type.Object({
        path: Type.String(),
        blocksBefore: Type.Integer(),
        blocksAfter: Type.Integer(),
        attributesBefore: Type.Integer(),
        attributesAfter: Type.Integer(),
        bytesBefore: Type.Integer(),
        bytesAfter: Type.Integer(),
      }),
    ),
    totals: Type.Object({
      pages: Type.Integer(),
      blocksBefore: Type.Integer(),
      blocksAfter: Type.Integer(),
      attributesBefore: Type.Integer(),
      attributesAfter: Type.Integer(),
      bytesBefore: Type.Integer(),
      bytesAfter: Type.Integer(),
    }),
    stayed: Type.Array(
      Type.Object({
        page: Type.Union([Type.String(), Type.Null()]),
        rule: Type.Union([Type.String(), Type.Null()]),
        reason: Type.String(),
      }),
    ),
    proof: Proof,
  },
  { $id: 'GatherReport' },
);

export type GatherReportReply = Static<typeof GatherReport>;
