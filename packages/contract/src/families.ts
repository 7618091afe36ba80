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

/** Style attributes that say the same, and the class proposed for them. */
export const AttributeGroup = Type.Object({
  key: Type.String(),
  name: Type.String(),
  selector: Type.String(),
  tags: Type.Array(Type.String()),
  declarations: Type.Array(Type.Object({ property: Type.String(), value: Type.String(), important: Type.Boolean() })),
  elements: Count,
  pages: Type.Array(Type.String()),
});

export const AttributeGroups = Type.Object(
  {
    groups: Type.Array(AttributeGroup),
    /** Attributes that stay whatever is chosen, by reason. */
    left: Type.Array(Type.Object({ reason: Type.String(), elements: Count, pages: Type.Array(Type.String()) })),
  },
  { $id: 'AttributeGroups' },
);

export type AttributeGroupReply = Static<typeof AttributeGroup>;
export type AttributeGroupsReply = Static<typeof AttributeGroups>;
export type FamilyReply = Static<typeof Family>;
export type FamiliesReply = Static<typeof Families>;
