import { keywordsOf } from '../checks/nearest.ts';
import { tokensOf, tokenTypes as T } from '../sheet/tokens.ts';
import { longhandNames, longhandsOfShorthand } from '../values/propertyTable.ts';
import type { SiteWords } from './siteWords.ts';

/** One thing that may stand here. */
export interface Completion {
  readonly label: string;
  readonly kind: 'property' | 'keyword' | 'element' | 'class' | 'id' | 'custom-property' | 'colour' | 'font';
  /** How often the site uses it; undefined where that is not counted. */
  readonly uses?: number;
  /** What is put in, where that is more than the label. */
  readonly apply?: string;
}

export interface Completions {
  /** Where the word begins that they take the place of. */
  readonly from: number;
  readonly options: readonly Completion[];
}

const wide = ['inherit', 'initial', 'unset', 'revert'];
const properties = [...longhandNames, ...Object.keys(longhandsOfShorthand)]
  .filter((name) => !name.startsWith('-'))
  .sort();
const takesColours = /color|background|border|outline|shadow|fill|stroke|decoration/;
const takesFonts = /^font(-family)?$/;

/** What may stand at an offset of a sheet: names of the site in selectors, properties in rules, what a property takes after its colon. */
export function completionsAt(text: string, offset: number, words: SiteWords): Completions | undefined {
  const place = placeAt(text, offset);
  if (!place) return undefined;
  const { from } = place;
  switch (place.kind) {
    case 'selector':
      return { from, options: names(words, text.slice(from, offset)) };
    case 'property':
      return {
        from,
        options: [
          ...properties.map((label): Completion => ({ label, kind: 'property', apply: `${label}: ` })),
          ...words.customProperties.map(({ name, uses }): Completion => ({
            label: name,
            kind: 'custom-property',
            uses,
          })),
        ],
      };
    case 'value':
      return { from, options: valuesOf(place.property, words) };
  }
}

function names(words: SiteWords, typed: string): readonly Completion[] {
  const of = (kind: 'class' | 'id' | 'element', mark: string, list: SiteWords['classes']): Completion[] =>
    list.map(({ name, uses }) => ({ label: mark + name, kind, uses }));
  if (typed.startsWith('.')) return of('class', '.', words.classes);
  if (typed.startsWith('#')) return of('id', '#', words.ids);
  return [...of('element', '', words.elements), ...of('class', '.', words.classes), ...of('id', '#', words.ids)];
}

function valuesOf(property: string, words: SiteWords): readonly Completion[] {
  const colours = takesColours.test(property) ? words.colours : [];
  const fonts = takesFonts.test(property) ? words.fonts : [];
  return [
    ...colours.map(({ name, uses }): Completion => ({ label: name, kind: 'colour', uses })),
    ...fonts.map(({ name, uses }): Completion => ({ label: name, kind: 'font', uses })),
    ...[...keywordsOf(property), ...wide].map((label): Completion => ({ label, kind: 'keyword' })),
    ...words.customProperties.map(({ name, uses }): Completion => ({
      label: `var(${name})`,
      kind: 'custom-property',
      uses,
    })),
  ];
}

type Place =
  | { readonly kind: 'selector' | 'property'; readonly from: number }
  | { readonly kind: 'value'; readonly property: string; readonly from: number };

/** What kind of thing stands at an offset; undefined inside comments, strings and preludes of at-rules. */
function placeAt(text: string, offset: number): Place | undefined {
  const t = tokensOf(text, 0, offset);
  let depth = 0;
  /** The tokens since the last brace or semicolon. */
  let first = 0;
  const atRules: boolean[] = [];
  for (let i = 0; i < t.count; i++) {
    const type = t.type[i];
    if (type === T.LeftCurlyBracket) {
      atRules.push(t.type[solid(t.type, first)] === T.AtKeyword);
      depth++;
      first = i + 1;
    } else if (type === T.RightCurlyBracket) {
      atRules.pop();
      depth = Math.max(0, depth - 1);
      first = i + 1;
    } else if (type === T.Semicolon) first = i + 1;
  }
  const last = t.count - 1;
  if (t.type[last] === T.String || t.type[last] === T.BadString) return undefined;
  if (t.type[last] === T.Comment && !text.slice(0, offset).endsWith('*/')) return undefined;
  const head = solid(t.type, first);
  if (t.type[head] === T.AtKeyword) return undefined;
  const word = /[.#]?-{0,2}[\w-]*$/.exec(text.slice(0, offset))![0];
  const from = offset - word.length;
  if (depth === 0 || atRules.at(-1)) return { kind: 'selector', from };
  const colon = solid(t.type, head + 1);
  if (t.type[head] === T.Ident && t.type[colon] === T.Colon && colon < t.count) {
    const property = text.slice(t.start[head], t.end[head]).toLowerCase();
    const value = /#?[\w-]*$/.exec(text.slice(0, offset))![0];
    return { kind: 'value', property, from: offset - value.length };
  }
  return { kind: /^[.#]/.test(word) ? 'selector' : 'property', from };
}

function solid(types: readonly number[], from: number): number {
  let i = from;
  while (types[i] === T.WhiteSpace || types[i] === T.Comment) i++;
  return i;
}
