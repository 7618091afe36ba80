import { Type } from '@sinclair/typebox';
import { fail, succeed } from '../../source/result.ts';
import { wordsForNothing } from '../../values/takenAsNothing.ts';
import { closed, operationType } from '../operationType.ts';

/**
 * Sheets that pages ask for and the site has not count as nothing, before and after: by their site paths those that are on no server
 * either, by their addresses those of other servers that are gone or say nothing about elements.
 */
export interface TakeAsMissing {
  readonly kind: 'take-as-missing';
  readonly sheets: readonly string[];
}

export interface MissingProblem {
  readonly kind: 'not-missing';
  readonly path: string;
}

/** What the operations of a draft say is missing: the site they begin with has to be looked at in the same way. */
export const takenAsMissing = (operations: readonly { readonly kind: string }[]): readonly string[] =>
  operations.flatMap((one) => (one.kind === 'take-as-missing' ? (one as TakeAsMissing).sheets : []));

export const takeAsMissing = operationType<TakeAsMissing, MissingProblem>()({
  kind: 'take-as-missing',
  schema: Type.Object(
    {
      kind: Type.Literal('take-as-missing'),
      sheets: Type.Array(Type.String({ minLength: 1, maxLength: 2000 }), { minItems: 1, maxItems: 1000 }),
    },
    closed,
  ),
  plan(site, { sheets }) {
    const there = sheets.find((path) => site.files.has(path));
    if (there !== undefined) return fail({ kind: 'not-missing', path: there });
    return succeed({
      changes: { created: [], edited: [], deleted: [] },
      absent: sheets,
      sentence:
        sheets.length === 1
          ? `Take ${sheets[0]!} as ${wordsForNothing(sheets[0]!)}`
          : `Take ${sheets.length} sheets that are not here as nothing`,
    });
  },
  problems: {
    'not-missing': ({ path }) =>
      `${path} is a file of the site. Only a sheet that is not here can be taken as missing.`,
  },
});
