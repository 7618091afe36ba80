import { tableOf } from '../../source/tableOf.ts';
import { differenceCiede2000, parse as parseColour, type Color } from 'culori';
import type { Sheet } from '../../sheet/sheet.ts';
import { comparableValue } from '../../values/comparableValue.ts';
import { declarationsIn } from './declarationsIn.ts';
import { valueWords } from './valueWords.ts';

/** A value as it is first written, and how often a sheet says it. */
export interface SaidValue {
  readonly value: string;
  readonly uses: number;
}

/** Values of a sheet that hardly differ, the one said most first. Lengths are told apart by the property that says them. */
export interface NearValues {
  readonly property: string | undefined;
  readonly values: readonly SaidValue[];
}

/** Colours closer than this are one to most eyes beside each other: CIEDE2000, "just noticeable" about 1, common practice 2 to 3. */
const nearColour = 3;
/** In the unit they are written in: a pixel, or the twentieth part of an em. */
const nearLength: Readonly<Record<string, number>> = tableOf({ px: 1, pt: 1, em: 0.05, rem: 0.05 });

/** Groups of near values. */
export function nearValues(sheet: Sheet): readonly NearValues[] {
  const colours = new Map<string, { value: string; uses: number; colour: Color }>();
  const lengths = new Map<string, Map<string, { value: string; uses: number; number: number; unit: string }>>();
  for (const { property, value } of declarationsIn(sheet.rules)) {
    if (property.startsWith('--')) continue;
    for (const { start, end } of valueWords(value)) {
      const word = value.slice(start, end);
      const length = /^(\d*\.?\d+)(px|pt|r?em)$/i.exec(word);
      const colour = length ? undefined : parseColour(word);
      if (length) {
        const own =
          lengths.get(property) ?? new Map<string, { value: string; uses: number; number: number; unit: string }>();
        lengths.set(property, own);
        const known = own.get(word.toLowerCase());
        if (known) known.uses++;
        else
          own.set(word.toLowerCase(), {
            value: word,
            uses: 1,
            number: Number(length[1]),
            unit: length[2]!.toLowerCase(),
          });
      } else if (colour && (colour.alpha ?? 1) === 1) {
        const key = comparableValue('color', word);
        const known = colours.get(key);
        if (known) known.uses++;
        else colours.set(key, { value: word, uses: 1, colour });
      }
    }
  }
  const distance = differenceCiede2000();
  const out: NearValues[] = groups([...colours.values()], (a, b) => distance(a.colour, b.colour) <= nearColour).map(
    (values) => ({ property: undefined, values }),
  );
  for (const [property, own] of lengths)
    out.push(
      ...groups(
        [...own.values()],
        (a, b) => a.unit === b.unit && Math.abs(a.number - b.number) <= nearLength[a.unit]! + 1e-9,
      ).map((values) => ({ property, values })),
    );
  return out;
}

/** Each with those near to the one said most that no other group has yet. */
function groups<One extends { readonly value: string; readonly uses: number }>(
  all: readonly One[],
  isNear: (a: One, b: One) => boolean,
): readonly (readonly SaidValue[])[] {
  const rest = [...all].sort((a, b) => b.uses - a.uses);
  const out: SaidValue[][] = [];
  for (let first = rest.shift(); first; first = rest.shift()) {
    const head = first;
    const near = rest.filter((one) => isNear(head, one));
    if (near.length === 0) continue;
    for (const one of near) rest.splice(rest.indexOf(one), 1);
    out.push([head, ...near].map(({ value, uses }) => ({ value, uses })));
  }
  return out;
}
