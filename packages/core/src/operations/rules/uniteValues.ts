import { Type } from '@sinclair/typebox';
import { fail, succeed } from '../../source/result.ts';
import type { Edit } from '../../source/span.ts';
import { declarationValidity } from '../../values/declarationValidity.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { breaksOut, changeRuleProblems } from './changeRule.ts';
import { declarationsIn } from './declarationsIn.ts';
import { placesOfValue } from './placesOfValue.ts';
import { editableSheet, ruleProblems, type RuleProblem } from './ruleRef.ts';

/** Values that hardly differ become one: a trade of a look for a shorter list of colours, sizes and distances. */
export interface UniteValues {
  readonly kind: 'unite-values';
  readonly sheet: string;
  readonly values: readonly string[];
  readonly to: string;
  /** Only in declarations of this property. */
  readonly property?: string;
}

export type UniteValuesProblem =
  | RuleProblem
  | { readonly kind: 'unite-not-said'; readonly value: string }
  | { readonly kind: 'unite-invalid'; readonly property: string; readonly value: string }
  | { readonly kind: 'value-with-brace'; readonly property: string; readonly value: string };

export const uniteValues = operationType<UniteValues, UniteValuesProblem>()({
  kind: 'unite-values',
  schema: Type.Object(
    {
      kind: Type.Literal('unite-values'),
      sheet: fields.sheet,
      values: Type.Array(Type.String({ minLength: 1, maxLength: 2000 }), { minItems: 1, maxItems: 200 }),
      to: Type.String({ minLength: 1, maxLength: 2000 }),
      property: Type.Optional(Type.String({ minLength: 1, maxLength: 400 })),
    },
    closed,
  ),
  plan(site, { sheet: path, values, to, property }) {
    const opened = editableSheet(site, path);
    if (!opened.ok) return opened;
    const { file, sheet } = opened.value;
    if (breaksOut({ property: property ?? '', value: to }))
      return fail({ kind: 'value-with-brace', property: property ?? 'it', value: to });
    const said = declarationsIn(sheet.rules).filter((one) => property === undefined || one.property === property);
    const edits: Edit[] = [];
    for (const value of values) {
      const found = said.flatMap((one) => placesOfValue(one, value).map((span) => ({ one, span })));
      if (found.length === 0) return fail({ kind: 'unite-not-said', value });
      for (const { one, span } of found) {
        const before = one.value.slice(0, span.start - one.valueSpan.start);
        const whole = before + to + one.value.slice(span.end - one.valueSpan.start);
        if (declarationValidity(one.property, whole) === 'invalid')
          return fail({ kind: 'unite-invalid', property: one.property, value: to });
        edits.push({ span, text: to });
      }
    }
    const changes = { created: [], edited: [{ path, hash: file.hash, edits }], deleted: [] };
    const which = values.length === 1 ? values[0]! : `${values.length} values`;
    return succeed({
      changes,
      sentence: `Say ${to} in place of ${which} in ${path}${property === undefined ? '' : `, for ${property}`}`,
    });
  },
  problems: {
    ...ruleProblems,
    'unite-not-said': ({ value }) => `No style rule of the sheet says ${value}.`,
    'unite-invalid': ({ property, value }) =>
      `${property} does not take ${value}, so browsers would drop what it says.`,
    'value-with-brace': changeRuleProblems['value-with-brace'],
  },
  choosesLook: true,
});
