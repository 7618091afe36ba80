import { Type } from '@sinclair/typebox';
import { formatHex, formatHex8, formatRgb, parse as parseColour, type Color } from 'culori';
import type { Declaration } from '../../sheet/sheet.ts';
import { fail, succeed } from '../../source/result.ts';
import type { Edit } from '../../source/span.ts';
import { comparableValue } from '../../values/comparableValue.ts';
import { closed, fields, operationType } from '../operationType.ts';
import { declarationsIn } from './declarationsIn.ts';
import { editableSheet, ruleProblems, type RuleProblem } from './ruleRef.ts';
import { valueWords } from './valueWords.ts';

/** Colours of a sheet in one notation; a colour that the notation cannot say exactly stays as it is. */
export interface ColourNotation {
  readonly kind: 'colour-notation';
  readonly sheet: string;
  readonly to: 'hex' | 'rgb';
}

export type ColourNotationProblem = RuleProblem | { readonly kind: 'colours-so-already'; readonly sheet: string };

export const colourNotation = operationType<ColourNotation, ColourNotationProblem>()({
  kind: 'colour-notation',
  schema: Type.Object(
    {
      kind: Type.Literal('colour-notation'),
      sheet: fields.sheet,
      to: Type.Union([Type.Literal('hex'), Type.Literal('rgb')]),
    },
    closed,
  ),
  plan(site, { sheet: path, to }) {
    const opened = editableSheet(site, path);
    if (!opened.ok) return opened;
    const { file, sheet } = opened.value;
    const edits = declarationsIn(sheet.rules).flatMap((one) => editsFor(one, to));
    if (edits.length === 0) return fail({ kind: 'colours-so-already', sheet: path });
    const changes = { created: [], edited: [{ path, hash: file.hash, edits }], deleted: [] };
    const sentence = `Write ${edits.length === 1 ? 'a colour' : `${edits.length} colours`} of ${path} as ${to === 'hex' ? '#rrggbb' : 'rgb()'}`;
    return succeed({ changes, sentence });
  },
  problems: {
    ...ruleProblems,
    'colours-so-already': ({ sheet }) => `All colours of ${sheet} that can be are written so already.`,
  },
});

/** A word is a colour only where its property takes one: what it says has to stay the same to the comparison. */
function editsFor({ property, value, valueSpan }: Declaration, to: ColourNotation['to']): readonly Edit[] {
  if (property.startsWith('--')) return [];
  return valueWords(value).flatMap(({ start, end }): readonly Edit[] => {
    const word = value.slice(start, end);
    const colour = /^(transparent|currentcolor)$/i.test(word) ? undefined : parseColour(word);
    const written = colour && writtenAs(colour, to);
    if (written === undefined || written === word.toLowerCase()) return [];
    const whole = value.slice(0, start) + written + value.slice(end);
    if (comparableValue(property, whole) !== comparableValue(property, value)) return [];
    return [{ span: { start: valueSpan.start + start, end: valueSpan.start + end }, text: written }];
  });
}

function writtenAs(colour: Color, to: ColourNotation['to']): string | undefined {
  if (to === 'rgb') return formatRgb(colour);
  return (colour.alpha ?? 1) === 1 ? formatHex(colour) : formatHex8(colour);
}
