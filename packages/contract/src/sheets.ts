import { Type, type Static } from '@sinclair/typebox';

const Count = Type.Integer({ minimum: 0 });
const Text = Type.String();
const Nullable = <T extends Parameters<typeof Type.Union>[0][number]>(schema: T) => Type.Union([schema, Type.Null()]);
const OnPages = Type.Array(Type.Object({ path: Text, elements: Count }));

/** How far each style rule of a sheet reaches, by where its selector starts. */
export const SheetReach = Type.Object(
  {
    path: Text,
    hash: Text,
    /** The pages that link it, in page order. */
    pages: Type.Array(Text),
    rules: Type.Array(
      Type.Object({
        start: Count,
        elements: Count,
        /** Elements on each of the pages, in their order; neighbours are summed where there are many. */
        strip: Type.Array(Count),
        /** Pages with such an element. */
        pages: Count,
      }),
    ),
  },
  { $id: 'SheetReach' },
);

/** What a rule wins and loses, and who beats it. */
export const RuleScore = Type.Object(
  {
    specificity: Nullable(Text),
    declarations: Type.Array(
      Type.Object({
        start: Count,
        property: Text,
        value: Text,
        wins: Count,
        loses: Count,
        pages: Type.Array(Type.Object({ path: Text, wins: Count, loses: Count })),
      }),
    ),
    beaters: Type.Array(
      Type.Object({
        kind: Type.Union((['linked', 'imported', 'embedded', 'attribute'] as const).map((one) => Type.Literal(one))),
        sheet: Nullable(Text),
        start: Nullable(Count),
        selector: Text,
        specificity: Nullable(Text),
        why: Text,
        properties: Type.Array(Text),
        value: Text,
        elements: Count,
        pages: Type.Array(Text),
      }),
    ),
  },
  { $id: 'RuleScore' },
);

/** The elements a selector reaches. */
export const SelectorReach = Type.Object({ elements: Count, pages: OnPages }, { $id: 'SelectorReach' });

const Words = Type.Array(Type.Object({ name: Text, uses: Count }));

/** Names, colours and fonts in use, the most used first. */
export const SiteWords = Type.Object(
  { elements: Words, classes: Words, ids: Words, customProperties: Words, colours: Words, fonts: Words },
  { $id: 'SiteWords' },
);

/** What operations would do as the next of the draft. */
export const Effect = Type.Object(
  {
    /** Pages that would not surely look as they do in the draft. */
    differing: Type.Array(Text),
    unsure: Type.Array(Text),
    /** Elements that would look different. */
    elements: Count,
    /** By what changes, the widest first; 200 at most. */
    changes: Type.Array(
      Type.Object({
        pseudoElement: Text,
        property: Text,
        before: Nullable(Text),
        after: Nullable(Text),
        reason: Text,
        elements: Count,
        pages: OnPages,
        sample: Type.Object({ page: Text, element: Text, name: Text }),
      }),
    ),
    /** What differs and is no element's, and why something cannot be told. */
    notes: Type.Array(Text),
    doubts: Type.Array(Text),
  },
  { $id: 'Effect' },
);

export type SheetReachReply = Static<typeof SheetReach>;
export type RuleScoreReply = Static<typeof RuleScore>;
export type SelectorReachReply = Static<typeof SelectorReach>;
export type SiteWordsReply = Static<typeof SiteWords>;
export type EffectReply = Static<typeof Effect>;
