import { PlanSettings } from '@syndeton/core';
import { Type, type Static } from '@sinclair/typebox';
import { Operation, Operations } from './operations.ts';

/** What was done to a site, to be done to other pages, another folder or another site. */
export const Recipe = Type.Object(
  {
    recipe: Type.Literal(1),
    name: Type.String({ maxLength: 200 }),
    steps: Type.Array(
      Type.Union([
        Type.Object(
          {
            does: Type.Literal('gather'),
            sheet: Type.String({ minLength: 1, maxLength: 400 }),
            settings: PlanSettings,
          },
          { additionalProperties: false },
        ),
        Type.Object({ does: Type.Literal('operation'), operation: Operation }, { additionalProperties: false }),
      ]),
      { maxItems: 1000 },
    ),
  },
  { additionalProperties: false, $id: 'Recipe' },
);

export const RecipeBody = Type.Object(
  { base: Type.Integer({ minimum: 1 }), version: Type.Integer({ minimum: 0 }), recipe: Recipe },
  { additionalProperties: false, $id: 'RecipeBody' },
);

/** What of a recipe fits the draft as it is: to be put behind it. */
export const FittedRecipe = Type.Object(
  {
    operations: Operations,
    /** What they do, in sentences. */
    fits: Type.Array(Type.String()),
    misfits: Type.Array(Type.Object({ step: Type.Integer(), why: Type.String() })),
  },
  { $id: 'FittedRecipe' },
);

export type RecipeReply = Static<typeof Recipe>;
export type RecipeRequest = Static<typeof RecipeBody>;
export type FittedRecipeReply = Static<typeof FittedRecipe>;
