import { Type, type TObject, type TSchema } from '@sinclair/typebox';

/** A query or form with these fields and no others. */
export const query = <Properties extends Record<string, TSchema>>(properties: Properties): TObject<Properties> =>
  Type.Object(properties, { additionalProperties: false });

/** `with=draft`: as the draft leaves it; the revision as it was saved when absent. */
export const as = { with: Type.Optional(Type.Literal('draft')) };
export const environment = {
  medium: Type.Optional(Type.Union([Type.Literal('screen'), Type.Literal('print')])),
  /** In CSS pixels; 1280 when absent. */
  width: Type.Optional(Type.Integer({ minimum: 1, maximum: 100_000 })),
};
export const since = Type.Integer({ minimum: 1, maximum: 999_999_999 });
export const name = Type.Optional(Type.String({ maxLength: 2000 }));
/** How names in an archive are to be read that are not UTF-8. */
export const names = Type.Optional(
  Type.Union([Type.Literal('cp437'), Type.Literal('cp850'), Type.Literal('windows-1252')]),
);
