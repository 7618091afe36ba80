import { Type } from '@sinclair/typebox';
import { lineEndOf } from '../../source/lineEnds.ts';
import { fail, succeed } from '../../source/result.ts';
import type { Edit } from '../../source/span.ts';
import { ruleStyleOf } from '../gather/ruleStyle.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { placesOfValue } from './placesOfValue.ts';
import { printedRule } from './ruleEdits.ts';
import { declarationsIn } from './declarationsIn.ts';
import { editableSheet, ruleProblems, type RuleProblem } from './ruleRef.ts';

/** A colour or list of fonts that a sheet says in several places gets a name, and stands in one place. */
export interface ValuesToProperties {
  readonly kind: 'values-to-properties';
  readonly sheet: string;
  readonly values: readonly { readonly value: string; readonly name: string }[];
}

export type ValuesToPropertiesProblem =
  | RuleProblem
  | { readonly kind: 'value-not-said'; readonly value: string }
  | { readonly kind: 'property-name'; readonly name: string }
  | { readonly kind: 'property-there'; readonly name: string };

/**
 * Every place of the sheet's style rules that says the value says `var()` instead; `:root` says the value. Names are new to the
 * sheet. CSS Custom Properties 1, "Defining Custom Properties".
 */
export const valuesToProperties = operationType<ValuesToProperties, ValuesToPropertiesProblem>()({
  kind: 'values-to-properties',
  schema: Type.Object(
    {
      kind: Type.Literal('values-to-properties'),
      sheet: fields.sheet,
      values: Type.Array(
        Type.Object(
          {
            value: Type.String({ minLength: 1, maxLength: 2000 }),
            name: Type.String({ minLength: 1, maxLength: 400 }),
          },
          closed,
        ),
        { minItems: 1, maxItems: 200 },
      ),
    },
    closed,
  ),
  plan(site, { sheet: path, values }) {
    const opened = editableSheet(site, path);
    if (!opened.ok) return opened;
    const { file, text, sheet } = opened.value;
    const wrong = values.find(({ name }) => !/^--[A-Za-z_][\w-]*$/.test(name));
    if (wrong) return fail({ kind: 'property-name', name: wrong.name });
    const said = declarationsIn(sheet.rules);
    const there = values.find(({ name }, i) => text.includes(name) || values.findIndex((one) => one.name === name) < i);
    if (there) return fail({ kind: 'property-there', name: there.name });
    const edits: Edit[] = [];
    for (const { value, name } of values) {
      const found = said.flatMap((one) => placesOfValue(one, value));
      if (found.length === 0) return fail({ kind: 'value-not-said', value });
      edits.push(...found.map(({ start, end }) => ({ span: { start, end }, text: `var(${name})` })));
    }
    const lineEnd = lineEndOf(text);
    const rule = printedRule(
      ':root',
      values.map(({ name, value }) => ({ property: name, value })),
      { ...ruleStyleOf(site), oneLine: false },
      lineEnd,
    );
    // behind what has to stand first
    const ahead = sheet.rules.findLast(({ kind }) => kind === 'import' || kind === 'statement');
    const at = ahead ? ahead.span.end : text.startsWith('\ufeff') ? 1 : 0;
    edits.push({ span: { start: at, end: at }, text: ahead ? lineEnd + lineEnd + rule : rule + lineEnd + lineEnd });
    const changes = { created: [], edited: [{ path, hash: file.hash, edits }], deleted: [] };
    const names =
      values.length === 1
        ? `${values[0]!.value} in ${path} the name ${values[0]!.name}`
        : `${values.length} values in ${path} names`;
    return succeed({ changes, sentence: `Give ${names}` });
  },
  problems: {
    ...ruleProblems,
    'value-not-said': ({ value }) => `No style rule of the sheet says ${value} where it could be a custom property.`,
    'property-name': ({ name }) =>
      `${name} cannot be the name of a custom property: two dashes, then letters, digits, hyphens and underscores, such as --brand.`,
    'property-there': ({ name }) => `The sheet says ${name} already. Choose another name.`,
  },
});
