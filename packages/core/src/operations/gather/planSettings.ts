import { Type, type Static } from '@sinclair/typebox';

/** How a plan is made, as far as it names no pages. */
export const PlanSettings = Type.Object(
  {
    /** What one page has and no other: shared where it reaches nothing else, to its own sheet, or it stays. */
    singlePage: Type.Optional(Type.Union([Type.Literal('shared'), Type.Literal('own'), Type.Literal('stay')])),
    maxSheets: Type.Optional(Type.Integer({ minimum: 1, maximum: 9999 })),
    /** Style attributes stay. */
    keepAttributes: Type.Optional(Type.Boolean()),
    /** Rules ask for the ID of an element where it alone has such a style attribute. */
    ids: Type.Optional(Type.Boolean()),
    /** Imports of embedded blocks stay imports. */
    keepImports: Type.Optional(Type.Boolean()),
    /** One new sheet whose rules ask for classes of their pages, one more for each folder, or as many as need no classes. */
    sheets: Type.Optional(Type.Union([Type.Literal('one'), Type.Literal('folders'), Type.Literal('own')])),
    /** No `:where()` in selectors. */
    oldBrowsers: Type.Optional(Type.Boolean()),
    /** Important declarations in place of stronger selectors. */
    important: Type.Optional(Type.Boolean()),
    /** Presentational attributes go as well. */
    hints: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false },
);

export type PlanSettings = Static<typeof PlanSettings>;

const names = Object.keys(PlanSettings.properties) as readonly (keyof PlanSettings)[];

/** Of a plan's options its settings; undefined where none was chosen. */
export function settingsIn(options: PlanSettings): PlanSettings | undefined {
  const chosen = names.filter((name) => options[name] !== undefined).map((name) => [name, options[name]]);
  return chosen.length === 0 ? undefined : (Object.fromEntries(chosen) as PlanSettings);
}
