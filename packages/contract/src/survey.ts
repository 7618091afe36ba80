import { Type, type Static } from '@sinclair/typebox';
import { Family } from './families.ts';

const Nullable = <T extends Parameters<typeof Type.Union>[0][number]>(schema: T) => Type.Union([schema, Type.Null()]);

export const SurveySource = Type.Object({
  kind: Type.Union(['linked', 'imported', 'embedded', 'attribute', 'presentational'].map((k) => Type.Literal(k))),
  target: Nullable(Type.String()),
  problem: Nullable(Type.String()),
  media: Type.String(),
  /** What else a link says. */
  says: Type.Optional(Type.Array(Type.String())),
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
  syntax: Type.Object({
    slashed: Type.Boolean(),
    upperCase: Type.Boolean(),
    quote: Type.Union([Type.Literal('"'), Type.Literal("'")]),
    typed: Type.Boolean(),
  }),
  /** What paths count from; null where a `base` leads elsewhere. */
  base: Nullable(Type.String()),
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

const Place = Type.Object({ path: Type.String(), line: Type.Integer(), column: Type.Integer() });

export const Finding = Type.Object({
  id: Type.String(),
  kind: Type.String(),
  severity: Type.Union([Type.Literal('breaks'), Type.Literal('wrong'), Type.Literal('note')]),
  /** Names of pages, sheets, selectors and values between backticks. */
  sentence: Type.String(),
  /** The sheet a finding about links is about. */
  sheet: Type.Optional(Type.String()),
  pages: Type.Array(Type.String()),
  places: Type.Array(Place),
  action: Type.Object({
    does: Type.Union([Type.Literal('mend'), Type.Literal('compare'), Type.Literal('look'), Type.Literal('read')]),
    label: Type.String(),
    /** What the author wrote there: asked about before the mend is taken. */
    asks: Type.Optional(Type.String()),
    family: Type.Optional(Type.String()),
  }),
});

export const RuleReach = Type.Object({
  sheet: Type.String(),
  selector: Type.String(),
  line: Type.Integer(),
  elements: Type.Integer(),
  pages: Type.Integer(),
});

const inventory = {
  pages: Type.Array(PageSurvey),
  sheets: Type.Array(SheetSurvey),
  repeatedBlocks: Type.Array(RepeatedBlock),
  otherFiles: Type.Integer(),
  repeatedBytes: Type.Integer(),
  findings: Type.Array(Finding),
  reach: Type.Array(RuleReach),
  /** Families of embedded rules with more than one version. */
  drifted: Type.Integer(),
  /** On how many pages each family of embedded rules stands, by its id. */
  familyPages: Type.Record(Type.String(), Type.Integer()),
};

/** The inventory of sources over all pages, and what is wrong with them: `GET …/survey`. */
export const Survey = Type.Object(inventory, { $id: 'Survey' });

/** `syndeton survey --json`: the inventory with all families of rules. */
export const WholeSurvey = Type.Object({ ...inventory, families: Type.Array(Family) }, { $id: 'WholeSurvey' });

const Span = Type.Object({ start: Type.Integer(), end: Type.Integer() });

/** One page opened: its sources in document order, their rules, and where they stand in its text. */
export const PageBands = Type.Object(
  {
    path: Type.String(),
    text: Type.String(),
    bands: Type.Array(
      Type.Object({
        kind: SurveySource.properties.kind,
        name: Type.String(),
        problem: Nullable(Type.String()),
        media: Type.String(),
        span: Nullable(Span),
        line: Type.Integer(),
        endLine: Type.Integer(),
        bytes: Type.Integer(),
        rules: Type.Array(
          Type.Object({
            label: Type.String(),
            declarations: Type.Array(
              Type.Object({ property: Type.String(), value: Type.String(), important: Type.Boolean() }),
            ),
            line: Type.Integer(),
            spans: Type.Array(Span),
            elements: Type.Integer(),
            loses: Type.Integer(),
            family: Nullable(Type.String()),
          }),
        ),
      }),
    ),
  },
  { $id: 'PageBands' },
);

/** What `syndeton check --json` prints. */
export const CheckReport = Type.Object(
  {
    failed: Type.Boolean(),
    failOn: Type.String(),
    pages: Type.Integer(),
    /** Pages that hold styling which was gathered before. */
    stillHolding: Type.Array(
      Type.Object({
        page: Type.String(),
        blocks: Type.Integer(),
        styleAttributes: Type.Integer(),
        gatheredBefore: Type.Array(Type.String()),
      }),
    ),
    findings: Type.Array(Finding),
  },
  { $id: 'CheckReport' },
);

export type SurveyReply = Static<typeof Survey>;
export type WholeSurveyReply = Static<typeof WholeSurvey>;
export type FindingReply = Static<typeof Finding>;
export type PageBandsReply = Static<typeof PageBands>;
export type CheckReportReply = Static<typeof CheckReport>;
