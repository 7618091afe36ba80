import { parse as parseColour } from 'culori';
import type { KeptOutcomes } from '../precedence/keptOutcomes.ts';
import { parseSheet } from '../sheet/parseSheet.ts';
import type { Declaration, Rule } from '../sheet/sheet.ts';
import { pagesOf, sheetsOf, type Site } from '../source/site.ts';
import { readingOf } from '../survey/pageReading.ts';

/** A word and how often the site uses it. */
export interface UsedWord {
  readonly name: string;
  readonly uses: number;
}

/** The words of a site that its author may want to write again; the most used first. */
export interface SiteWords {
  readonly elements: readonly UsedWord[];
  readonly classes: readonly UsedWord[];
  readonly ids: readonly UsedWord[];
  readonly customProperties: readonly UsedWord[];
  readonly colours: readonly UsedWord[];
  readonly fonts: readonly UsedWord[];
}

export const noWords: SiteWords = { elements: [], classes: [], ids: [], customProperties: [], colours: [], fonts: [] };

/** Elements, classes and IDs as pages have them; colours, fonts and custom properties as sheets and blocks say them. */
export function siteWords(site: Site, kept: KeptOutcomes): SiteWords {
  const [elements, classes, ids] = [new Map<string, number>(), new Map<string, number>(), new Map<string, number>()];
  kept.countLooks((look, n) => {
    add(elements, look.tag, n);
    for (const name of new Set(look.classes)) add(classes, name, n);
    if (look.id !== undefined && look.id !== '') add(ids, look.id, n);
  });
  const said = {
    customProperties: new Map<string, number>(),
    colours: new Map<string, number>(),
    fonts: new Map<string, number>(),
  };
  for (const { text } of sheetsOf(site)) if (text !== undefined) lookAt(parseSheet(text).rules, said);
  for (const file of pagesOf(site))
    for (const block of readingOf(file)?.blocks ?? [])
      for (const { rule } of block.units) for (const one of rule.declarations) declared(one.declaration, said);
  const list = (words: Map<string, number>): UsedWord[] =>
    [...words].map(([name, uses]) => ({ name, uses })).sort((a, b) => b.uses - a.uses || (a.name < b.name ? -1 : 1));
  return {
    elements: list(elements),
    classes: list(classes),
    ids: list(ids),
    customProperties: list(said.customProperties),
    colours: list(said.colours),
    fonts: list(said.fonts),
  };
}

type Said = Readonly<Record<'customProperties' | 'colours' | 'fonts', Map<string, number>>>;

function lookAt(rules: readonly Rule[], said: Said): void {
  for (const rule of rules) {
    if (rule.kind === 'style') {
      for (const one of rule.declarations) declared(one, said);
      lookAt(rule.nested, said);
    } else if (rule.kind === 'declarations') for (const one of rule.declarations) declared(one, said);
    else if (rule.kind === 'group') lookAt(rule.rules, said);
  }
}

function declared({ property, value }: Declaration, said: Said): void {
  if (property.startsWith('--')) add(said.customProperties, property, 1);
  if (property === 'font-family' && !/^(inherit|initial|unset|revert)$/i.test(value)) add(said.fonts, value, 1);
  for (const word of coloursIn(value)) add(said.colours, word, 1);
}

/** Colours in a value as written: `#0b5563`, `teal`, `rgb(…)`; names inside addresses and strings are none. */
export function coloursIn(value: string): readonly string[] {
  const bare = value.replace(/url\([^)]*\)|"[^"]*"|'[^']*'/gi, ' ');
  const words =
    bare.match(/#[0-9a-f]{3,8}\b|\b(?:rgba?|hsla?|oklch|oklab|lab|lch|hwb)\([^()]*\)|\b[a-z]{3,20}\b(?![\w(-])/gi) ??
    [];
  return words.filter((word) => !/^(none|inherit|initial|unset)$/i.test(word) && parseColour(word) !== undefined);
}

const add = (counts: Map<string, number>, name: string, n: number): void =>
  void counts.set(name, (counts.get(name) ?? 0) + n);
