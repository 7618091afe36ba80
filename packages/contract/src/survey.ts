import { Type, type Static } from '@sinclair/typebox';

const Nullable = <T extends Parameters<typeof Type.Union>[0][number]>(schema: T) => Type.Union([schema, Type.Null()]);

export const SurveySource = Type.Object({
  kind: Type.Union(['linked', 'imported', 'embedded', 'attribute', 'presentational'].map((k) => Type.Literal(k))),
  target: Nullable(Type.String()),
  problem: Nullable(Type.String()),
  media: Type.String(),
  rules: Type.Integer(),
  declarations: Type.Integer(),
  bytes: Type.Integer(),
  count: Type.Integer(),
  line: Type.Integer(),
});

export const PageSurvey = Type.Object({
  path: Type.String(),
  bytes: Type.Integer(),
  encoding: Type.String(),
  mode: Type.String(),
  opaque: Type.Boolean(),
  sources: Type.Array(SurveySource),
  sharedBytes: Type.Integer(),
  localBytes: Type.Integer(),
  embeddedRules: Type.Integer(),
  styleAttributes: Type.Integer(),
});

export const SheetSurvey = Type.Object({
  path: Type.String(),
  bytes: Type.Integer(),
  rules: Type.Integer(),
  pages: Type.Array(Type.String()),
});

export const RepeatedBlock = Type.Object({
  selectors: Type.Array(Type.String()),
  versions: Type.Array(Type.Object({ pages: Type.Array(Type.String()) })),
  pages: Type.Array(Type.String()),
  bytes: Type.Integer(),
});

/** The inventory of sources over all pages: `syndeton survey --json` and `GET …/survey`. */
export const Survey = Type.Object(
  {
    pages: Type.Array(PageSurvey),
    sheets: Type.Array(SheetSurvey),
    repeatedBlocks: Type.Array(RepeatedBlock),
    otherFiles: Type.Integer(),
    repeatedBytes: Type.Integer(),
  },
  { $id: 'Survey' },
);

export type SurveyReply = Static<typeof Survey>;
