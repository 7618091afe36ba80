import { Type, type Static } from '@sinclair/typebox';

const Count = Type.Integer({ minimum: 0 });
const Text = Type.String();
const Nullable = <T extends Parameters<typeof Type.Union>[0][number]>(schema: T) => Type.Union([schema, Type.Null()]);

const Sentence = Type.Object({
  lead: Text,
  /** Selectors and values between backticks. */
  rest: Text,
  kind: Text,
});

const At = Type.Object({ path: Text, name: Text });

export const TableEntry = Type.Object({
  id: Text,
  source: Text,
  declared: Text,
  value: Text,
  important: Type.Boolean(),
  selector: Nullable(Text),
  rule: Nullable(Text),
  specificity: Nullable(Text),
  file: Text,
  line: Count,
  state: Type.Union((['wins', 'loses', 'peeled', 'idle'] as const).map((one) => Type.Literal(one))),
  reason: Nullable(Type.Object({ kind: Text, words: Text })),
});

export const TableRow = Type.Object({
  property: Text,
  longhands: Type.Array(Text),
  entries: Type.Array(TableEntry),
  sentence: Sentence,
  inheritedFrom: Nullable(At),
  value: Text,
});

/** What decides each property of one element. */
export const ElementTable = Type.Object(
  {
    page: Text,
    element: Text,
    name: Text,
    text: Text,
    line: Count,
    ancestors: Type.Array(At),
    children: Type.Array(At),
    pseudoElements: Type.Array(Text),
    sources: Type.Array(
      Type.Object({
        id: Text,
        kind: Type.Union(
          (['browser', 'presentational', 'linked', 'imported', 'embedded', 'attribute'] as const).map((one) =>
            Type.Literal(one),
          ),
        ),
        path: Text,
        place: Count,
        media: Text,
        line: Count,
        says: Count,
        peeled: Type.Boolean(),
        /** For blocks and style attributes: the pages that hold the same one. */
        pages: Type.Array(Text),
      }),
    ),
    rows: Type.Array(TableRow),
  },
  { $id: 'ElementTable' },
);

export const ValueDecider = Type.Object({
  kind: Type.Union(
    (['linked', 'imported', 'embedded', 'attribute', 'presentational', 'browser', 'initial'] as const).map((one) =>
      Type.Literal(one),
    ),
  ),
  path: Text,
  selector: Text,
  specificity: Nullable(Text),
  important: Type.Boolean(),
  property: Text,
  value: Text,
  inheritedFrom: Nullable(Text),
  sentence: Sentence,
  copies: Type.Boolean(),
  over: Nullable(Type.Object({ path: Text, selector: Text, value: Text })),
  pages: Type.Array(Text),
  elements: Count,
  /** The first element, and the text in it. */
  first: Type.Object({ page: Text, element: Text, name: Text, text: Text }),
});

/** What decides a property of all elements a selector reaches. */
export const QuestionAnswer = Type.Object(
  {
    pages: Count,
    elements: Count,
    without: Count,
    values: Type.Array(
      Type.Object({
        value: Text,
        pages: Type.Array(Text),
        elements: Count,
        deciders: Type.Array(ValueDecider),
      }),
    ),
  },
  { $id: 'QuestionAnswer' },
);

const SharedRule = { path: Text, selector: Text, part: Text, specificity: Text, property: Text, value: Text };

export const Override = Type.Object({
  id: Text,
  cause: Type.Union(
    (['copy', 'order', 'specificity', 'attribute', 'importance', 'layer', 'proximity'] as const).map((one) =>
      Type.Literal(one),
    ),
  ),
  kind: Type.Union([Type.Literal('embedded'), Type.Literal('attribute')]),
  selector: Text,
  specificity: Nullable(Text),
  property: Text,
  value: Text,
  important: Type.Boolean(),
  beats: Type.Object(SharedRule),
  then: Type.Array(Type.Object({ value: Text, source: Text, elements: Count })),
  pages: Type.Array(Text),
  elements: Count,
  changes: Count,
  first: Type.Object({ page: Text, element: Text, name: Text, text: Text }),
  /** Why it is kept, as somebody wrote it. */
  note: Nullable(Text),
});

export const Overrides = Type.Object(
  {
    overrides: Type.Array(Override),
    alwaysBeaten: Type.Array(
      Type.Object({
        ...SharedRule,
        by: Type.Array(Type.Object({ path: Text, selector: Text, value: Text })),
        elements: Count,
      }),
    ),
  },
  { $id: 'Overrides' },
);

/** Where a value stands on the site. */
export const ValuePlaces = Type.Object(
  {
    places: Type.Array(
      Type.Object({
        kind: Type.Union([Type.Literal('sheet'), Type.Literal('block'), Type.Literal('attribute')]),
        path: Text,
        line: Count,
        selector: Text,
        property: Text,
        value: Text,
      }),
    ),
    /** All places, when not all are sent. */
    total: Count,
  },
  { $id: 'ValuePlaces' },
);

export const NoteBody = Type.Object(
  { override: Type.String({ minLength: 1, maxLength: 100_000 }), note: Type.String({ maxLength: 2000 }) },
  { additionalProperties: false, $id: 'NoteBody' },
);

export type ElementTableReply = Static<typeof ElementTable>;
export type TableRowReply = Static<typeof TableRow>;
export type TableEntryReply = Static<typeof TableEntry>;
export type QuestionReply = Static<typeof QuestionAnswer>;
export type ValueDeciderReply = Static<typeof ValueDecider>;
export type OverridesReply = Static<typeof Overrides>;
export type OverrideReply = Static<typeof Override>;
export type ValuePlacesReply = Static<typeof ValuePlaces>;
export type NoteRequest = Static<typeof NoteBody>;
