import { coloursIn, sheetOutline, type UsedWord } from '@syndeton/core';

/** Colours and fonts that a sheet says, in the order they first stand in it. */
export function valuesIn(text: string): { readonly colours: UsedWord[]; readonly fonts: UsedWord[] } {
  const [colours, fonts] = [new Map<string, number>(), new Map<string, number>()];
  for (const { declarations } of sheetOutline(text))
    for (const { property, value } of declarations) {
      for (const colour of coloursIn(value)) add(colours, colour.toLowerCase());
      if (property === 'font-family' && !/^(inherit|initial|unset|revert)$/i.test(value)) add(fonts, value);
    }
  return { colours: list(colours), fonts: list(fonts) };
}

const add = (counts: Map<string, number>, name: string): void => void counts.set(name, (counts.get(name) ?? 0) + 1);
const list = (counts: ReadonlyMap<string, number>): UsedWord[] => [...counts].map(([name, uses]) => ({ name, uses }));
