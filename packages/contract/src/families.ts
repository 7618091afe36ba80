import { Type, type Static } from '@sinclair/typebox';

const Count = Type.Integer({ minimum: 0 });

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
  /** Families with the same declarations under another selector. */
  twins: Type.Array(Type.String()),
  /** Elements on all pages that its rules apply to; null for definitions. */
  elements: Type.Union([Count, Type.Null()]),
  order: Count,
  drifted: Type.Array(Type.String()),
});

export const Families = Type.Object({ families: Type.Array(Family) }, { $id: 'Families' });

export type FamilyReply = Static<typeof Family>;
export type FamiliesReply = Static<typeof Families>;
