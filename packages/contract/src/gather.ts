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
        /** Why it is a sheet of its own. */
        why: Type.Optional(Type.String()),
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
        stayed: Type.Array(
          Type.Object({
            kind: Type.Union([Type.Literal('block'), Type.Literal('attribute'), Type.Literal('presentational')]),
            line: Type.Integer(),
            /** The reason, for programs. */
            code: Type.String(),
            reason: Type.String(),
          }),
        ),
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
    /** What it costs those who keep the site. */
    figures: Type.Object({
      newSheets: Type.Integer(),
      linksBefore: Type.Integer(),
      linksAfter: Type.Integer(),
      marks: Type.Integer(),
      markedPages: Type.Integer(),
      rules: Type.Integer(),
      classesMade: Type.Integer(),
      namesUsed: Type.Integer(),
      repeatedClasses: Type.Integer(),
      declarationsTwice: Type.Integer(),
      /** Pages and sheets together, as they are and compressed, each file by itself. */
      bytesBefore: Type.Integer(),
      bytesAfter: Type.Integer(),
      gzipBefore: Type.Integer(),
      gzipAfter: Type.Integer(),
    }),
    proof: Proof,
  },
  { $id: 'GatherReport' },
);

export type GatherReportReply = Static<typeof GatherReport>;
