import { Type, type Static } from '@sinclair/typebox';

const RuleChoice = Type.Object(
  { family: Type.String(), version: Type.Optional(Type.String()) },
  { additionalProperties: false },
);

const RuleException = Type.Object(
  { family: Type.String(), version: Type.Optional(Type.String()), page: Type.Optional(Type.String()) },
  { additionalProperties: false },
);

export const GatherRulesOperation = Type.Object(
  {
    kind: Type.Literal('gather-rules'),
    sheet: Type.String({ minLength: 1, maxLength: 400 }),
    pages: Type.Optional(Type.Array(Type.String(), { maxItems: 10_000 })),
    rules: Type.Optional(Type.Array(RuleChoice, { maxItems: 50_000 })),
    except: Type.Optional(Type.Array(RuleException, { maxItems: 200_000 })),
    /** The link stands ahead of the blocks that follow the same sources, behind links to these sheets. */
    after: Type.Optional(Type.Array(Type.String(), { maxItems: 500 })),
    /** A class for the body of these pages, below which the rules then count. */
    scope: Type.Optional(Type.String({ minLength: 1, maxLength: 100 })),
    /** Where in a sheet that is there already: its start, its end, or before the rule of a family. */
    place: Type.Optional(
      Type.Union([
        Type.Literal('start'),
        Type.Literal('end'),
        Type.Object({ before: Type.String({ minLength: 1, maxLength: 4000 }) }, { additionalProperties: false }),
      ]),
    ),
    keepEmptyBlocks: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);

/** Blocks become sheets as they stand, each linked where its block was. */
export const GatherBlocksOperation = Type.Object(
  {
    kind: Type.Literal('gather-blocks'),
    folder: Type.String({ maxLength: 400 }),
    pages: Type.Optional(Type.Array(Type.String(), { maxItems: 10_000 })),
    least: Type.Optional(Type.Integer({ minimum: 1 })),
    /** Paths for sheets, by the block's key. */
    names: Type.Optional(Type.Record(Type.String(), Type.String({ maxLength: 400 }))),
  },
  { additionalProperties: false },
);

/** Presentational attributes become rules of a new sheet, linked before all others. */
export const GatherHintsOperation = Type.Object(
  {
    kind: Type.Literal('gather-hints'),
    sheet: Type.String({ minLength: 1, maxLength: 400 }),
    pages: Type.Optional(Type.Array(Type.String(), { maxItems: 10_000 })),
    /** `center` and `font` become `div` and `span` as well. */
    elements: Type.Optional(Type.Boolean()),
    except: Type.Optional(
      Type.Array(Type.Object({ key: Type.String(), page: Type.String() }, { additionalProperties: false }), {
        maxItems: 50_000,
      }),
    ),
  },
  { additionalProperties: false },
);

/** An element with an ID (`#wrap`) or a class (`.main`) goes round the content of pages. */
export const WrapContentOperation = Type.Object(
  {
    kind: Type.Literal('wrap-content'),
    pages: Type.Array(Type.String(), { minItems: 1, maxItems: 10_000 }),
    name: Type.String({ minLength: 2, maxLength: 100 }),
  },
  { additionalProperties: false },
);

/** Pages that hold other versions of a rule take this one. */
export const SettleDriftOperation = Type.Object(
  {
    kind: Type.Literal('settle-drift'),
    family: Type.String(),
    version: Type.String(),
    from: Type.Optional(Type.Array(Type.String(), { maxItems: 10_000 })),
    pages: Type.Optional(Type.Array(Type.String(), { maxItems: 10_000 })),
  },
  { additionalProperties: false },
);

export const EditSheetOperation = Type.Object(
  {
    kind: Type.Literal('edit-sheet'),
    path: Type.String(),
    hash: Type.String(),
    text: Type.String({ maxLength: 20_000_000 }),
  },
  { additionalProperties: false },
);

export const MendOperation = Type.Object(
  {
    kind: Type.Literal('mend'),
    /** A finding's id. */
    finding: Type.String({ maxLength: 20_000 }),
    files: Type.Optional(Type.Array(Type.String(), { maxItems: 10_000 })),
  },
  { additionalProperties: false },
);

export const LinkAlikeOperation = Type.Object(
  { kind: Type.Literal('link-alike'), pages: Type.Array(Type.String(), { minItems: 1, maxItems: 10_000 }) },
  { additionalProperties: false },
);

export const GatherAttributesOperation = Type.Object(
  {
    kind: Type.Literal('gather-attributes'),
    sheet: Type.String({ minLength: 1, maxLength: 400 }),
    pages: Type.Optional(Type.Array(Type.String(), { maxItems: 10_000 })),
    /** Only these groups, by their key. */
    only: Type.Optional(Type.Array(Type.String(), { maxItems: 50_000 })),
    /** An element that alone has its group keeps its markup: the rule asks for its ID. */
    ids: Type.Optional(Type.Boolean()),
    /** Important declarations in place of stronger selectors. */
    important: Type.Optional(Type.Boolean()),
    /** Class names for groups of equal attributes, by the group's key. */
    names: Type.Optional(Type.Record(Type.String(), Type.String({ maxLength: 100 }))),
    except: Type.Optional(
      Type.Array(
        Type.Object({ key: Type.String(), page: Type.Optional(Type.String()) }, { additionalProperties: false }),
        {
          maxItems: 50_000,
        },
      ),
    ),
  },
  { additionalProperties: false },
);

const Sheet = Type.String({ minLength: 1, maxLength: 400 });
const SomePages = Type.Optional(Type.Array(Type.String(), { maxItems: 10_000 }));
const Media = Type.String({ maxLength: 1000 });

export const LinkPlace = Type.Union([
  Type.Object(
    {
      at: Type.Union(
        (['first', 'before-blocks', 'last', 'after-title', 'head-end'] as const).map((at) => Type.Literal(at)),
      ),
    },
    { additionalProperties: false },
  ),
  Type.Object(
    { at: Type.Union([Type.Literal('before'), Type.Literal('after')]), sheet: Sheet },
    { additionalProperties: false },
  ),
]);

export const PathStyle = Type.Union([
  Type.Literal('page'),
  Type.Literal('root'),
  Type.Object({ host: Type.String({ maxLength: 400 }) }, { additionalProperties: false }),
]);

/** What is done to the links of pages. */
export const LinkOperations = [
  Type.Object(
    {
      kind: Type.Literal('link-sheet'),
      sheet: Sheet,
      pages: SomePages,
      place: LinkPlace,
      media: Type.Optional(Media),
      paths: Type.Optional(PathStyle),
    },
    { additionalProperties: false },
  ),
  Type.Object({ kind: Type.Literal('unlink-sheet'), sheet: Sheet, pages: SomePages }, { additionalProperties: false }),
  Type.Object(
    { kind: Type.Literal('move-link'), sheet: Sheet, pages: SomePages, place: LinkPlace },
    { additionalProperties: false },
  ),
  Type.Object(
    {
      kind: Type.Literal('set-link'),
      sheet: Sheet,
      pages: SomePages,
      media: Type.Optional(Media),
      paths: Type.Optional(PathStyle),
    },
    { additionalProperties: false },
  ),
  Type.Object({ kind: Type.Literal('import-to-link'), pages: SomePages }, { additionalProperties: false }),
  Type.Object(
    { kind: Type.Literal('link-to-import'), sheet: Sheet, pages: SomePages },
    { additionalProperties: false },
  ),
  Type.Object(
    {
      kind: Type.Literal('copy-links'),
      from: Type.String(),
      pages: Type.Array(Type.String(), { minItems: 1, maxItems: 10_000 }),
    },
    { additionalProperties: false },
  ),
  Type.Object({ kind: Type.Literal('add-baseline'), sheet: Sheet, pages: SomePages }, { additionalProperties: false }),
  Type.Object({ kind: Type.Literal('rename-sheet'), sheet: Sheet, to: Sheet }, { additionalProperties: false }),
];

const LocalDeclaration = {
  where: Type.Union([Type.Literal('block'), Type.Literal('attribute')]),
  selector: Type.Optional(Type.String({ maxLength: 20_000 })),
  property: Type.String({ minLength: 1, maxLength: 400 }),
  value: Type.String({ maxLength: 100_000 }),
  important: Type.Optional(Type.Boolean()),
};

/** What is done to declarations in pages that beat shared ones. */
export const OverrideOperations = [
  Type.Object(
    { kind: Type.Literal('drop-declaration'), ...LocalDeclaration, pages: SomePages },
    { additionalProperties: false },
  ),
  Type.Object(
    {
      kind: Type.Literal('share-declaration'),
      ...LocalDeclaration,
      sheet: Sheet,
      rule: Type.String({ maxLength: 20_000 }),
      pages: SomePages,
    },
    { additionalProperties: false },
  ),
  Type.Object(
    { kind: Type.Literal('drop-block'), page: Type.String(), source: Type.Integer({ minimum: 0 }), pages: SomePages },
    { additionalProperties: false },
  ),
  Type.Object(
    {
      kind: Type.Literal('drop-attribute'),
      page: Type.String(),
      element: Type.String({ maxLength: 5000 }),
      pages: SomePages,
    },
    { additionalProperties: false },
  ),
];

export const Operation = Type.Union([
  GatherAttributesOperation,
  GatherRulesOperation,
  GatherBlocksOperation,
  SettleDriftOperation,
  GatherHintsOperation,
  WrapContentOperation,
  EditSheetOperation,
  MendOperation,
  LinkAlikeOperation,
  ...LinkOperations,
  ...OverrideOperations,
]);

export const Operations = Type.Array(Operation, { maxItems: 500 });

export type OperationBody = Static<typeof Operation>;
